import { sql, type Kysely } from 'kysely';

type Builder = ReturnType<Kysely<unknown>['schema']['createTable']>;

const stamped = (table: Builder) =>
  table
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('updated_at', 'text', (c) => c.notNull());

const id = (table: Builder) => table.addColumn('id', 'text', (c) => c.primaryKey());

const owner = (column: string, of: string) => (table: Builder) =>
  table.addColumn(column, 'text', (c) => c.notNull().references(`${of}.id`).onDelete('cascade'));

export async function up(db: Kysely<unknown>): Promise<void> {
  const create = (name: string) => db.schema.createTable(name).modifyEnd(sql`strict`);

  await create('gym')
    .$call(id)
    .$call(stamped)
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('class_name', 'text', (c) => c.notNull())
    .execute();

  await create('student')
    .$call(id)
    .$call(stamped)
    .$call(owner('gym_id', 'gym'))
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('stance', 'text', (c) => c.notNull().check(sql`stance in ('orthodox', 'southpaw')`))
    .addColumn('grade', 'text', (c) => c.notNull())
    .addColumn('started_on', 'text')
    .addColumn('height_m', 'real')
    .addColumn('mass_kg', 'real')
    .addColumn('injuries', 'text', (c) => c.notNull())
    .addColumn('is_minor', 'integer', (c) => c.notNull())
    .addColumn('archived_at', 'text')
    .execute();

  await create('consent')
    .$call(id)
    .$call(stamped)
    .$call(owner('student_id', 'student'))
    .addColumn('given_by', 'text', (c) => c.notNull())
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('given_on', 'text', (c) => c.notNull())
    .addColumn('withdrawn_at', 'text')
    .execute();

  await create('clip')
    .$call(id)
    .$call(stamped)
    .$call(owner('student_id', 'student'))
    .addColumn('sha256', 'text', (c) => c.notNull())
    .addColumn('file_name', 'text', (c) => c.notNull())
    .addColumn('mime_type', 'text', (c) => c.notNull())
    .addColumn('bytes', 'integer', (c) => c.notNull())
    .addColumn('view', 'text', (c) => c.notNull())
    .addColumn('capture_rate', 'real')
    .addColumn('width', 'integer', (c) => c.notNull())
    .addColumn('height', 'integer', (c) => c.notNull())
    .addColumn('codec', 'text', (c) => c.notNull())
    .addColumn('frame_times', 'blob', (c) => c.notNull())
    .addColumn('scale', 'text')
    .addColumn('target', 'text')
    .addColumn('revision', 'integer', (c) => c.notNull())
    .addUniqueConstraint('clip_once_per_student', ['student_id', 'sha256'])
    .execute();

  await create('track')
    .$call(id)
    .$call(stamped)
    .$call(owner('clip_id', 'clip'))
    .addColumn('source', 'text', (c) => c.notNull())
    .addColumn('points', 'blob', (c) => c.notNull())
    .addUniqueConstraint('track_one_per_source', ['clip_id', 'source'])
    .execute();

  await create('strike')
    .$call(id)
    .$call(stamped)
    .$call(owner('clip_id', 'clip'))
    .addColumn('technique', 'text', (c) => c.notNull())
    .addColumn('side', 'text', (c) => c.notNull().check(sql`side in ('left', 'right')`))
    .addColumn('position', 'integer', (c) => c.notNull())
    .addColumn('removed_at', 'text')
    .execute();

  await create('mark')
    .$call(stamped)
    .$call(owner('strike_id', 'strike'))
    .addColumn('event', 'text', (c) => c.notNull())
    .addColumn('frame', 'integer', (c) => c.notNull())
    .addColumn('width', 'integer', (c) => c.notNull())
    .addColumn('time', 'real', (c) => c.notNull())
    .addColumn('sigma', 'real', (c) => c.notNull())
    .addColumn('source', 'text', (c) => c.notNull())
    .addPrimaryKeyConstraint('mark_one_per_event', ['strike_id', 'event'])
    .execute();

  await create('finding')
    .$call(id)
    .$call(stamped)
    .$call(owner('strike_id', 'strike'))
    .addColumn('fault', 'text', (c) => c.notNull())
    .addColumn('status', 'text', (c) => c.notNull())
    .addColumn('reason', 'text', (c) => c.notNull())
    .addColumn('evidence', 'text', (c) => c.notNull())
    .addColumn('judged_by', 'text', (c) => c.notNull())
    .addUniqueConstraint('finding_one_per_fault', ['strike_id', 'fault'])
    .execute();

  await create('cue')
    .$call(id)
    .$call(stamped)
    .$call(owner('student_id', 'student'))
    .$call(owner('finding_id', 'finding'))
    .addColumn('technique', 'text', (c) => c.notNull())
    .addColumn('text', 'text', (c) => c.notNull())
    .addColumn('drill', 'text', (c) => c.notNull())
    .addColumn('status', 'text', (c) => c.notNull())
    .execute();

  // The rule "one active cue per student and technique" is the database's, not a screen's.
  await sql`create unique index cue_one_active on cue (student_id, technique)
            where status = 'active'`.execute(db);
  for (const [table, column] of [
    ['clip', 'student_id'],
    ['clip', 'sha256'],
    ['strike', 'clip_id'],
    ['consent', 'student_id'],
  ] as const) {
    await db.schema.createIndex(`${table}_by_${column}`).on(table).column(column).execute();
  }
}
