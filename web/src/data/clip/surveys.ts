/** Surveys of clips: made in the coach's browser, kept so that a film is gone through only once. */
import type { Survey } from '@sinew/core/observe/take/survey';
import { now, stamps, type Db } from '../database/db';
import { COLUMNS } from '../database/columns';

export async function surveyOf(db: Db, clipId: string): Promise<Survey | null> {
  const row = await db
    .selectFrom('survey')
    .select('survey')
    .where('clip_id', '=', clipId)
    .executeTakeFirst();
  return COLUMNS.survey.survey.readOr(row?.survey ?? null, null);
}

/** @returns false when there is no such clip, or the survey is of another film */
export async function keepSurvey(db: Db, clipId: string, survey: Survey): Promise<boolean> {
  const clip = await db
    .selectFrom('clip')
    .select('frame_times')
    .where('id', '=', clipId)
    .executeTakeFirst();
  if (!clip || clip.frame_times.length / 8 !== survey.amounts.length) return false;
  const json = COLUMNS.survey.survey.write(survey);
  await db
    .insertInto('survey')
    .values({ clip_id: clipId, survey: json, ...stamps() })
    .onConflict((conflict) =>
      conflict.column('clip_id').doUpdateSet({ survey: json, updated_at: now() }),
    )
    .execute();
  return true;
}
