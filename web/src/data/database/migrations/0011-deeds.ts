import { sql, type Kysely } from 'kysely';

/** Who did what, where several coach. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('deed')
    .addColumn('id', 'integer', (c) => c.primaryKey())
    .addColumn('gym_id', 'text', (c) => c.notNull().references('gym.id').onDelete('cascade'))
    .addColumn('by', 'text', (c) => c.notNull())
    .addColumn('what', 'text', (c) => c.notNull())
    .addColumn('detail', 'text', (c) => c.notNull())
    .addColumn('student_id', 'text', (c) => c.references('student.id').onDelete('cascade'))
    .addColumn('clip_id', 'text', (c) => c.references('clip.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  await db.schema.createIndex('deed_clip').on('deed').column('clip_id').execute();
  await db.schema.createIndex('deed_student').on('deed').column('student_id').execute();
}
