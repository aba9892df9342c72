import { sql, type Kysely } from 'kysely';

/** What body tracking needs: what was seen, how far it has come, and the coach's word on it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('clip').addColumn('corrections', 'text').execute();
  await db.schema
    .alterTable('strike')
    .addColumn('is_automatic', 'integer', (c) => c.notNull().defaultTo(0))
    .execute();

  await db.schema
    .createTable('tracking')
    .addColumn('clip_id', 'text', (c) => c.primaryKey().references('clip.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('model', 'text', (c) => c.notNull())
    .addColumn('state', 'text', (c) => c.notNull())
    .addColumn('message', 'text')
    .addColumn('person', 'text')
    .addColumn('found', 'text')
    .modifyEnd(sql`strict`)
    .execute();

  await db.schema
    .createTable('sighting')
    .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
    .addColumn('clip_id', 'text', (c) => c.notNull().references('clip.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('points', 'blob', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  await db.schema
    .createTable('series')
    .addColumn('clip_id', 'text', (c) => c.primaryKey().references('clip.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('file_name', 'text', (c) => c.notNull())
    .addColumn('begins', 'real', (c) => c.notNull())
    .addColumn('track', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  await db.schema.createIndex('sighting_of_clip').on('sighting').column('clip_id').execute();
}
