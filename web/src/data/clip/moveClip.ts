/** A clip that was added to the wrong student. */
import { now, type Db } from '../database/db';
import { studentById } from '../student/students';

export type MoveOutcome = { readonly moved: number } | { readonly problem: string };

/**
 * Move a clip with all that was marked on it to another student, and the film that is joined to it.
 * Cues that came from it end: they were said of somebody else. Work that was given stays.
 */
export async function moveClip(db: Db, clipId: string, studentId: string): Promise<MoveOutcome> {
  const student = await studentById(db, studentId);
  if (!student) return { problem: 'This student is not in the gym’s list any more.' };
  if (!student.consent) {
    const whose = student.isMinor ? 'a guardian’s consent' : 'the consent';
    return { problem: `Record ${whose} for ${student.name} first; nothing was moved.` };
  }
  return db.transaction().execute(async (trx) => {
    const pairs = await trx
      .selectFrom('view_pair')
      .select(['first_clip_id', 'second_clip_id'])
      .where(({ or, eb }) =>
        or([eb('first_clip_id', '=', clipId), eb('second_clip_id', '=', clipId)]),
      )
      .execute();
    const together = new Set([
      clipId,
      ...pairs.flatMap((pair) => [pair.first_clip_id, pair.second_clip_id]),
    ]);
    const clips = await trx
      .selectFrom('clip')
      .select(['id', 'sha256', 'student_id'])
      .where('id', 'in', [...together])
      .where('student_id', '!=', studentId)
      .execute();
    const films = clips.map(({ sha256 }) => sha256);
    const same = await trx
      .selectFrom('clip')
      .select('file_name')
      .where('student_id', '=', studentId)
      .where('sha256', 'in', films)
      .executeTakeFirst();
    if (same) {
      return { problem: `${student.name} has this very film already; nothing was moved.` };
    }
    const ids = clips.map(({ id }) => id);
    await trx
      .updateTable('cue')
      .set({ status: 'closed', closed_at: now(), closed_because: 'film moved', updated_at: now() })
      .where('status', '=', 'active')
      .where('finding_id', 'in', (from) =>
        from
          .selectFrom('finding')
          .innerJoin('strike', 'strike.id', 'finding.strike_id')
          .select('finding.id')
          .where('strike.clip_id', 'in', ids),
      )
      .execute();
    await trx
      .updateTable('clip')
      .set({ student_id: studentId, updated_at: now() })
      .where('id', 'in', ids)
      .execute();
    return { moved: ids.length };
  });
}
