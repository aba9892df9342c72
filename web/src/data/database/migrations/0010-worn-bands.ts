import { sql, type Kysely } from 'kysely';

/** What a student's bands go round, and what the bands worn in a film have told. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const student = db.schema.alterTable('student');
  await student.addColumn('girth_hips_m', 'real').execute();
  await student.addColumn('girth_ribs_m', 'real').execute();
  await student.addColumn('band_seam', 'text').execute();
  await db.schema
    .createTable('band_turn')
    .addColumn('clip_id', 'text', (c) => c.primaryKey().references('clip.id').onDelete('cascade'))
    .addColumn('turns', 'text', (c) => c.notNull())
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
}
