import { END_LEASE, TAKE_LEASE } from '@/api/endpoints';
import { bodyOf, done, fresh } from '@/app/api/answers';
import { clipFiles } from '@/data/film/clipFilesHere';
import { readableState } from '@/data/film/readable';
import { endLease, takeLease } from '@/data/clip/leases';
import { ofClip } from '../ofClip';

const NOBODY = { happened: 'Who looks for the body is missing.', safe: 'Nothing was changed.' };

/** Whether this browser may look for the body in this clip for the next while. */
export const POST = ofClip(async (request, { db, clip }) => {
  const { worker } = await bodyOf(request, TAKE_LEASE.sends, NOBODY);
  // Nobody can look into a film that is still made readable.
  const isBeingMade = (await readableState(db, clipFiles(), clip.id)) === 'being-made';
  return fresh({ isYours: !isBeingMade && takeLease(clip.id, worker) });
});

/** It looks no more. */
export const DELETE = ofClip(async (request, { clip }) => {
  const { worker } = await bodyOf(request, END_LEASE.sends, NOBODY);
  endLease(clip.id, worker);
  return done();
});
