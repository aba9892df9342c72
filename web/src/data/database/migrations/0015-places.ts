import type { Kysely } from 'kysely';

/** Where the camera stood, more exactly than the view says; unknown of all films so far. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('clip').addColumn('azimuth', 'real').execute();
}
