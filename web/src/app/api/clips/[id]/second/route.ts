import { bodyOf, done, fresh, there } from '@/app/api/answers';
import { JOIN } from '@/api/endpoints';
import { joinClips, partClips, secondViewOf } from '@/data/clip/viewPairs';
import { measureClipLater } from '@/data/finding/measureLater';
import { ofClip } from '../ofClip';

/** The clip joined with this one, its bench and the offset between their clocks; null for none. */
export const GET = ofClip(async (_, { db, clip }) => fresh(await secondViewOf(db, clip.id)));

export const PUT = ofClip(async (request, { db, clip: { id } }) => {
  const { clip, offset } = await bodyOf(request, JOIN.sends, {
    happened: 'The other clip or the offset is missing.',
    safe: 'Nothing was joined.',
  });
  there(await joinClips(db, id, clip, offset), {
    happened: 'These two clips do not belong to one student.',
    safe: 'Nothing was joined.',
  });
  await measureClipLater(id);
  return done();
});

export const DELETE = ofClip(async (_, { db, clip: { id } }) => {
  await partClips(db, id);
  await measureClipLater(id);
  return done();
});
