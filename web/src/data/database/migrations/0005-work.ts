import { sql, type Kysely } from 'kysely';

/** What work and the ledger need: prescriptions, logs, gates, plans, tests; and deletes with an undo. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const add = (table: string, column: string) =>
    db.schema.alterTable(table).addColumn(column, 'text').execute();
  for (const [table, column] of [
    ['clip', 'intent'],
    ['clip', 'deleted_at'],
    ['clip', 'purged_at'],
    ['student', 'deleted_at'],
    ['consent', 'expires_on'],
    ['cue', 'closed_at'],
    ['cue', 'closed_because'],
    ['finding', 'cleared_at'],
    ['finding', 'cleared_because'],
    ['gym', 'settings'],
  ] as const) {
    await add(table, column);
  }
  await db.schema.alterTable('clip').addColumn('round', 'integer').execute();
  await db.schema
    .alterTable('student')
    .addColumn('class_group', 'text', (c) => c.notNull().defaultTo(''))
    .execute();
  // Counted where they change, so that the Floor need not count half a million marks.
  await db.schema
    .alterTable('strike')
    .addColumn('marks_left', 'integer', (c) => c.notNull().defaultTo(8))
    .execute();
  await sql`update strike set marks_left =
            case technique when 'knee-strike' then 7 else 8 end -
            (select count(*) from mark where mark.strike_id = strike.id)`.execute(db);
  await sql`update cue set closed_at = updated_at, closed_because = 'replaced'
            where status = 'closed'`.execute(db);

  const create = (name: string) =>
    db.schema
      .createTable(name)
      .modifyEnd(sql`strict`)
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('updated_at', 'text', (c) => c.notNull());
  const ofStudent = (name: string) =>
    create(name).addColumn('student_id', 'text', (c) =>
      c.notNull().references('student.id').onDelete('cascade'),
    );

  await ofStudent('prescription')
    .addColumn('cue_id', 'text', (c) => c.references('cue.id').onDelete('set null'))
    .addColumn('technique', 'text')
    .addColumn('fault', 'text')
    .addColumn('drill', 'text', (c) => c.notNull())
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('dose', 'text', (c) => c.notNull())
    .addColumn('stances', 'text', (c) => c.notNull())
    .addColumn('intent', 'text', (c) => c.notNull())
    .addColumn('gate', 'text', (c) => c.notNull())
    .addColumn('given_on', 'text', (c) => c.notNull())
    .addColumn('next_check', 'text', (c) => c.notNull())
    .addColumn('status', 'text', (c) =>
      c.notNull().check(sql`status in ('active', 'done', 'stopped')`),
    )
    .addColumn('override', 'text', (c) => c.notNull())
    .execute();

  await ofStudent('drill_log')
    .addColumn('prescription_id', 'text', (c) =>
      c.references('prescription.id').onDelete('set null'),
    )
    .addColumn('technique', 'text')
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('day', 'text', (c) => c.notNull())
    .addColumn('at', 'text', (c) => c.notNull())
    .addColumn('intent', 'text', (c) => c.notNull())
    .addColumn('strikes', 'integer', (c) => c.notNull())
    .addColumn('seconds', 'integer', (c) => c.notNull())
    .addColumn('clean', 'integer')
    .addColumn('counted_by', 'text', (c) => c.notNull())
    .addColumn('deleted_at', 'text')
    .addCheckConstraint('clean_is_of_strikes', sql`clean is null or clean between 0 and strikes`)
    .execute();

  await ofStudent('gate_step')
    .addColumn('technique', 'text', (c) => c.notNull())
    .addColumn('kind', 'text', (c) => c.notNull().check(sql`kind in ('override', 'injury')`))
    .addColumn('at', 'text', (c) => c.notNull())
    .addColumn('to_intent', 'text')
    .addColumn('reason', 'text', (c) => c.notNull())
    .execute();

  await create('plan_item')
    .addColumn('gym_id', 'text', (c) => c.notNull().references('gym.id').onDelete('cascade'))
    .addColumn('student_id', 'text', (c) => c.references('student.id').onDelete('cascade'))
    .addColumn('day', 'text', (c) => c.notNull())
    .addColumn('position', 'real', (c) => c.notNull())
    .addColumn('kind', 'text', (c) => c.notNull().check(sql`kind in ('session', 'retest', 'note')`))
    .addColumn('session', 'text')
    .addColumn('title', 'text', (c) => c.notNull())
    .addColumn('block', 'text')
    .addColumn('done_at', 'text')
    .execute();

  await ofStudent('note')
    .addColumn('technique', 'text')
    .addColumn('day', 'text', (c) => c.notNull())
    .addColumn('text', 'text', (c) => c.notNull())
    .addColumn('deleted_at', 'text')
    .execute();

  await ofStudent('field_test')
    .addColumn('kind', 'text', (c) => c.notNull())
    .addColumn('day', 'text', (c) => c.notNull())
    .addColumn('given', 'text', (c) => c.notNull())
    .addColumn('result', 'text', (c) => c.notNull())
    .addColumn('deleted_at', 'text')
    .execute();

  await create('remark')
    .addColumn('strike_id', 'text', (c) => c.notNull().references('strike.id').onDelete('cascade'))
    .addColumn('by', 'text', (c) => c.notNull())
    .addColumn('marks', 'text', (c) => c.notNull())
    .execute();

  await db.schema
    .createTable('measured')
    .addColumn('strike_id', 'text', (c) =>
      c.primaryKey().references('strike.id').onDelete('cascade'),
    )
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull())
    .addColumn('stamp', 'text', (c) => c.notNull())
    // The long one last: what stands before it is read without it.
    .addColumn('links', 'text', (c) => c.notNull())
    .addColumn('rules', 'text', (c) => c.notNull())
    .addColumn('shows', 'text', (c) => c.notNull())
    .addColumn('readings', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();

  for (const [table, ...columns] of [
    ['prescription', 'student_id', 'status'],
    ['drill_log', 'student_id', 'day'],
    ['gate_step', 'student_id'],
    ['plan_item', 'day'],
    ['note', 'student_id'],
    ['field_test', 'student_id'],
    ['remark', 'strike_id'],
    ['finding', 'status'],
    ['clip', 'student_id', 'created_at'],
    // All that the Floor asks of a film, so that it need not be looked up.
    ['clip', 'deleted_at', 'student_id', 'created_at', 'purged_at', 'id'],
    ['strike', 'clip_id', 'removed_at', 'marks_left', 'is_automatic'],
    ['drill_log', 'prescription_id', 'deleted_at', 'day'],
  ] as const) {
    await db.schema
      .createIndex(`${table}_by_${columns.join('_')}`)
      .on(table)
      .columns([...columns])
      .execute();
  }
}
