import { sql, type Kysely } from 'kysely';

/** What filming with purpose needs: surveys, camera set-ups, two views, strikes found in a take. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const column of ['purpose', 'rectangle', 'lens', 'refused'] as const) {
    await db.schema.alterTable('clip').addColumn(column, 'text').execute();
  }
  await db.schema.alterTable('strike').addColumn('from_frame', 'integer').execute();
  await db.schema.alterTable('strike').addColumn('to_frame', 'integer').execute();
  await db.schema.alterTable('strike').addColumn('combination', 'text').execute();

  await db.schema
    .createTable('survey')
    .addColumn('clip_id', 'text', (c) => c.primaryKey().references('clip.id').onDelete('cascade'))
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('survey', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();

  await db.schema
    .createTable('camera_setup')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('gym_id', 'text', (c) => c.notNull().references('gym.id').onDelete('cascade'))
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('width', 'integer', (c) => c.notNull())
    .addColumn('height', 'integer', (c) => c.notNull())
    .addColumn('calibration', 'text', (c) => c.notNull())
    .addUniqueConstraint('camera_setup_one_per_name', ['gym_id', 'name'])
    .modifyEnd(sql`strict`)
    .execute();

  await db.schema
    .createTable('view_pair')
    .addColumn('first_clip_id', 'text', (c) =>
      c.primaryKey().references('clip.id').onDelete('cascade'),
    )
    .addColumn('second_clip_id', 'text', (c) =>
      c.notNull().unique().references('clip.id').onDelete('cascade'),
    )
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('seconds', 'real', (c) => c.notNull())
    .addColumn('sigma', 'real', (c) => c.notNull())
    .addColumn('by', 'text', (c) => c.notNull())
    .addColumn('pairs', 'integer', (c) => c.notNull())
    .addCheckConstraint('view_pair_of_two', sql`first_clip_id <> second_clip_id`)
    .modifyEnd(sql`strict`)
    .execute();
}
