import { sql, type Kysely } from 'kysely';

/** What hurt during work: it shuts the student's gate until the coach says that it is over. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('hurt_note')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('student_id', 'text', (c) =>
      c.notNull().references('student.id').onDelete('cascade'),
    )
    .addColumn('day', 'text', (c) => c.notNull())
    .addColumn('place', 'text', (c) => c.notNull())
    .addColumn('words', 'text', (c) => c.notNull())
    .addColumn('ended_at', 'text')
    .addColumn('ended_because', 'text')
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  await db.schema
    .createIndex('hurt_note_of_student')
    .on('hurt_note')
    .column('student_id')
    .execute();
}
