import { sql, type Kysely } from 'kysely';

/** What judging needs: schools, the coach's eye, what a fault costs, the gym's own library. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const column of ['school', 'situation', 'range', 'audit'] as const) {
    await db.schema.alterTable('strike').addColumn(column, 'text').execute();
  }
  await db.schema.alterTable('student').addColumn('school', 'text').execute();
  await db.schema.alterTable('gym').addColumn('library', 'text').execute();
  for (const column of ['judged_as', 'cost'] as const) {
    await db.schema.alterTable('finding').addColumn(column, 'text').execute();
  }
  await db.schema
    .createTable('library_change')
    .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
    .addColumn('gym_id', 'text', (c) => c.notNull().references('gym.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('by', 'text', (c) => c.notNull())
    .addColumn('what', 'text', (c) => c.notNull())
    .addColumn('before', 'text', (c) => c.notNull())
    .addColumn('after', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
}
