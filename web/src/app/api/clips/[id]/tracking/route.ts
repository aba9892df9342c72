import { bodyOf, done, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { CHANGE_JOB } from '@/api/endpoints';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { changeJob, dropJob, jobOf } from '@/data/clip/trackings';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';

interface Context {
  params: Promise<{ id: string }>;
}

/** How far the tracking of this clip has come; null when nobody has asked for it. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  fresh(await jobOf(await database(), (await params).id)),
);

/** Start, pause, resume, or say how it went. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const wanted = await bodyOf(request, CHANGE_JOB.sends, {
    happened: 'This cannot be asked of the body tracker.',
    safe: 'Nothing was changed.',
  });
  const [db, { id }] = [await database(), await params];
  there(await changeJob(db, id, wanted), { happened: 'This clip is not being tracked.' });
  if (wanted.kind === 'finish') {
    await takeFoundStrikes(db, id);
    await measureClipLater(id);
  }
  return done();
});

/** Give it up: what was seen is forgotten, the coach's own points stay. */
export const DELETE = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  await dropJob(await database(), id);
  await measureClipLater(id);
  return done();
});
