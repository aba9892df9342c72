import { bodyOf, done, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { JOIN } from '@/api/endpoints';
import { joinClips, partClips, secondViewOf } from '@/data/clip/viewPairs';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';

interface Context {
  params: Promise<{ id: string }>;
}

/** The clip joined with this one, its bench and the offset between their clocks; null for none. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  fresh(await secondViewOf(await database(), (await params).id)),
);

export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const { clip, offset } = await bodyOf(request, JOIN.sends, {
    happened: 'The other clip or the offset is missing.',
    safe: 'Nothing was joined.',
  });
  const [db, { id }] = [await database(), await params];
  there(await joinClips(db, id, clip, offset), {
    happened: 'These two clips do not belong to one student.',
    safe: 'Nothing was joined.',
  });
  await measureClipLater(id);
  return done();
});

export const DELETE = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  await partClips(await database(), id);
  await measureClipLater(id);
  return done();
});
