import { firstEditsSchema, fromFirst } from '@sinew/core/judge/library/firstVersion';
import { sql, type Kysely } from 'kysely';

/**
 * Tables and stored words by the terms of the field: what a body tracker gives is a pose detection, a
 * strike marked a second time a repeat marking, a link that neither drives nor drags is neutral, what
 * the catalogue holds are faults. Limits that a gym has changed are kept by name, not by place.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('sighting').renameTo('detection').execute();
  await db.schema.dropIndex('sighting_of_clip').execute();
  await db.schema.createIndex('detection_of_clip').on('detection').column('clip_id').execute();
  await db.schema.alterTable('remark').renameTo('repeat_marking').execute();
  await db.schema.dropIndex('remark_by_strike_id').execute();
  await db.schema
    .createIndex('repeat_marking_by_strike_id')
    .on('repeat_marking')
    .column('strike_id')
    .execute();

  await sql`update strike set audit = replace(audit, '"rides"', '"neutral"')`.execute(db);
  await sql`update measured set links = replace(links, '"rides"', '"neutral"')`.execute(db);
  await sql`update finding set judged_by =
    replace(replace(judged_by, '"isWitness"', '"onlyClears"'), '"isForeign"', '"isNotApplicable"')`.execute(
    db,
  );
  const gyms = await sql<{ id: string; library: string }>`
    select id, library from gym where json_type(library, '$.leaks') is not null`.execute(db);
  for (const { id, library } of gyms.rows) {
    const edits = firstEditsSchema.safeParse(JSON.parse(library));
    // What cannot be read is left as it is: nothing of a gym's is thrown away here.
    if (!edits.success) continue;
    const after = JSON.stringify(fromFirst(edits.data));
    await sql`update gym set library = ${after} where id = ${id}`.execute(db);
  }
}
