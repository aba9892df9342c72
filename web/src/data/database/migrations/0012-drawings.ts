import type { Kysely } from 'kysely';

/** What a coach draws on frames of a film. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('clip').addColumn('drawings', 'text').execute();
}
