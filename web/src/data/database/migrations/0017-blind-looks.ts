import type { Kysely } from 'kysely';

/** Who left first, as the coach saw it with lanes and numbers put away. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('strike').addColumn('looks', 'text').execute();
}
