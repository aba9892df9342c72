import { bodyOf, done, fresh, there } from '@/app/api/answers';
import { KEEP_SURVEY } from '@/api/endpoints';
import { keepSurvey, surveyOf } from '@/data/clip/surveys';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { ofClip } from '../ofClip';

/** What going through the film has told; null until it has been done. */
export const GET = ofClip(async (_, { db, clip }) => fresh(await surveyOf(db, clip.id)));

/** Keep what the coach's browser has found. */
export const PUT = ofClip(async (request, { db, clip: { id } }) => {
  const survey = await bodyOf(request, KEEP_SURVEY.sends, {
    happened: 'This is not a survey.',
    safe: 'Nothing was kept.',
  });
  there(await keepSurvey(db, id, survey), { happened: 'The survey is not of this clip.' });
  await takeFoundStrikes(db, id);
  return done();
});
