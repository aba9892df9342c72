/** Films that answer the question whether the work has changed anything. */
import { sql } from 'kysely';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import type { Answer } from '@sinew/core/train/work/nextThing';
import type { Db } from '../database/db';
import { dayIn } from '../database/today';

/** Days before a check in which a film answers it; those of the week before belong to the last one. */
const BEFORE = 7;

/** By prescription; one student's or everybody's. Only work for a fault has something to compare with. */
export async function retestsOf(db: Db, studentId?: string): Promise<ReadonlyMap<string, Answer>> {
  const newest = sql<string | null>`(
    select strike.id from clip join strike on strike.clip_id = clip.id
    where clip.student_id = prescription.student_id and clip.deleted_at is null
      and strike.technique = prescription.technique and strike.removed_at is null
    order by clip.created_at desc, strike.position limit 1)`;
  const rows = await db
    .selectFrom('prescription')
    .innerJoin('cue', 'cue.id', 'prescription.cue_id')
    .innerJoin('finding', 'finding.id', 'cue.finding_id')
    .select(['prescription.id', 'prescription.next_check', 'finding.strike_id as then'])
    .select(newest.as('now'))
    .where('prescription.status', '=', 'active')
    .$if(studentId !== undefined, (query) =>
      query.where('prescription.student_id', '=', studentId!),
    )
    .execute();
  const ids = rows.flatMap(({ now }) => now ?? []);
  if (ids.length === 0) return new Map();
  const films = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['strike.id', 'clip.created_at'])
    .where('strike.id', 'in', ids)
    .execute();
  const filmedAt = new Map(films.map((film) => [film.id, film.created_at]));
  const found = new Map<string, Answer>();
  for (const { id, then, now, next_check } of rows) {
    const at = now === null ? undefined : filmedAt.get(now);
    if (now === null || at === undefined || now === then) continue;
    const day = dayIn(new Date(at));
    if (day > plusDays(next_check, -BEFORE)) found.set(id, { then, now, day });
  }
  return found;
}
