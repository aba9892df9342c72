/** How much of each kind of work a student has done. */
import type { Db } from '../database/db';

export interface Dose {
  readonly name: string;
  readonly strikes: number;
  readonly seconds: number;
  readonly days: number;
}

/** The most worked first. */
export async function dosesOf(db: Db, studentId: string): Promise<Dose[]> {
  return db
    .selectFrom('drill_log')
    .select('name')
    .select(({ fn }) => [
      fn.sum<number>('strikes').as('strikes'),
      fn.sum<number>('seconds').as('seconds'),
      fn.count<number>('day').distinct().as('days'),
    ])
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .groupBy('name')
    .orderBy('days', 'desc')
    .orderBy('name')
    .execute();
}
