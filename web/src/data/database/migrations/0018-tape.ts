import type { Kysely } from 'kysely';

/** Bands may be strips of tape. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('student').addColumn('band_kind', 'text').execute();
}
