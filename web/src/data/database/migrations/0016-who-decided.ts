import type { Kysely } from 'kysely';

/** Who gave the coach's word on a finding, and when; of what has been said before nobody knows. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('finding').addColumn('decided_by', 'text').execute();
  await db.schema.alterTable('finding').addColumn('decided_at', 'text').execute();
}
