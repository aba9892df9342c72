import { bodyOf, done, fresh, there } from '@/app/api/answers';
import { CHANGE_JOB } from '@/api/endpoints';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { changeJob, dropJob, jobOf } from '@/data/clip/trackings';
import { measureClipLater } from '@/data/finding/measureLater';
import { ofClip } from '../ofClip';

/** How far the tracking of this clip has come; null when nobody has asked for it. */
export const GET = ofClip(async (_, { db, clip }) => fresh(await jobOf(db, clip.id)));

/** Start, pause, resume, or say how it went. */
export const PUT = ofClip(async (request, { db, clip: { id } }) => {
  const wanted = await bodyOf(request, CHANGE_JOB.sends, {
    happened: 'This cannot be asked of the body tracker.',
    safe: 'Nothing was changed.',
  });
  there(await changeJob(db, id, wanted), { happened: 'This clip is not being tracked.' });
  if (wanted.kind === 'finish') {
    await takeFoundStrikes(db, id);
    await measureClipLater(id);
  }
  return done();
});

/** Give it up: what was seen is forgotten, the coach's own points stay. */
export const DELETE = ofClip(async (_, { db, clip: { id } }) => {
  await dropJob(db, id);
  await measureClipLater(id);
  return done();
});
