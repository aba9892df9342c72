import { sql, type Kysely } from 'kysely';

/** What a set measures, kept so that a ledger need not take the median of a year of strikes. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('measured_set')
    .addColumn('clip_id', 'text', (c) => c.notNull().references('clip.id').onDelete('cascade'))
    .addColumn('technique', 'text', (c) => c.notNull())
    .addColumn('side', 'text', (c) => c.notNull())
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('stamp', 'text', (c) => c.notNull())
    .addColumn('readings', 'text', (c) => c.notNull())
    .addPrimaryKeyConstraint('measured_set_key', ['clip_id', 'technique', 'side'])
    .modifyEnd(sql`strict`)
    .execute();
}
