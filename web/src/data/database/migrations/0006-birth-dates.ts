import type { Kysely } from 'kysely';

/**
 * Age is known by the day of birth; the tick "under 18" counts only until that is known. What becomes
 * of films is said when a consent is withdrawn.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('student').addColumn('born_on', 'text').execute();
  await db.schema.alterTable('consent').addColumn('films_until', 'text').execute();
}
