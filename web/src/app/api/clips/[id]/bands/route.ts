import { bodyOf, done, fresh, there } from '@/app/api/answers';
import { KEEP_BANDS } from '@/api/endpoints';
import { bandTurnsOf, keepBandTurns } from '@/data/clip/bandTurns';
import { ofClip } from '../ofClip';

/** What the worn bands have told; null until they have been read. */
export const GET = ofClip(async (_, { db, clip }) => fresh(await bandTurnsOf(db, clip.id)));

/** Keep what the coach's browser has read. */
export const PUT = ofClip(async (request, { db, clip: { id } }) => {
  const kept = await bodyOf(request, KEEP_BANDS.sends, {
    happened: 'These are no turns of bands.',
    safe: 'Nothing was kept.',
  });
  there(await keepBandTurns(db, id, kept), { happened: 'The bands are not of this clip.' });
  return done();
});
