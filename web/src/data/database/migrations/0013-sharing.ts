import { sql, type Kysely } from 'kysely';

/** Consent that films leave this machine, given apart from the consent to be filmed. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('sharing')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('student_id', 'text', (c) =>
      c.notNull().references('student.id').onDelete('cascade'),
    )
    .addColumn('given_by', 'text', (c) => c.notNull())
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('given_on', 'text', (c) => c.notNull())
    .addColumn('withdrawn_at', 'text')
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  await db.schema.createIndex('sharing_of_student').on('sharing').column('student_id').execute();
}
