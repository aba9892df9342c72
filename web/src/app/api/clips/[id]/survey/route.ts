import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { keepSurvey, surveyOf } from '@/data/clip/surveys';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { surveySchema } from '@/video/survey';

interface Context {
  params: Promise<{ id: string }>;
}

/** What going through the film has told; null until it has been done. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const survey = await surveyOf(await database(), (await params).id);
  return Response.json(survey);
});

/** Keep what the coach's browser has found. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const body = surveySchema.safeParse(await request.json().catch(() => null));
  if (!body.success) {
    return Response.json({ message: 'This is not a survey; nothing was kept.' }, { status: 400 });
  }
  const [db, { id }] = [await database(), await params];
  const isKept = await keepSurvey(db, id, body.data);
  if (isKept) await takeFoundStrikes(db, id);
  return isKept
    ? Response.json({})
    : Response.json({ message: 'The survey is not of this clip.' }, { status: 404 });
});
