import { bodyOf, done, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { KEEP_SURVEY } from '@/api/endpoints';
import { keepSurvey, surveyOf } from '@/data/clip/surveys';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { database } from '@/data/database/database';

interface Context {
  params: Promise<{ id: string }>;
}

/** What going through the film has told; null until it has been done. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  fresh(await surveyOf(await database(), (await params).id)),
);

/** Keep what the coach's browser has found. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const survey = await bodyOf(request, KEEP_SURVEY.sends, {
    happened: 'This is not a survey.',
    safe: 'Nothing was kept.',
  });
  const [db, { id }] = [await database(), await params];
  there(await keepSurvey(db, id, survey), { happened: 'The survey is not of this clip.' });
  await takeFoundStrikes(db, id);
  return done();
});
