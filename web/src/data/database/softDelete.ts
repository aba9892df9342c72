/** Rows that are put away instead of removed, and can be brought back; see `trash.ts`. */
import { now, type Db } from './db';

export type SoftTable = 'student' | 'note' | 'field_test' | 'drill_log';

export async function setDeleted(
  db: Db,
  table: SoftTable,
  id: string,
  isDeleted: boolean,
): Promise<void> {
  await db
    .updateTable(table)
    .set({ deleted_at: isDeleted ? now() : null, updated_at: now() })
    .where('id', '=', id)
    .execute();
}
