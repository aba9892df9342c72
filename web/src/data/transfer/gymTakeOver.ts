/** The rows of a gym's file put beside those that are here, in one transaction. */
import { sql } from 'kysely';
import { now, type Db } from '../database/db';
import { gymForWriting } from '../gym/gym';
import { insertRow, type Row, type TableName } from './gymTables';
import type { Manifest } from './gymManifest';
import type { RowsOf } from './stagedTables';

export interface TakenOver {
  readonly added: { readonly students: number; readonly clips: number; readonly rows: number };
  /** Of the file, here already; these stay as they are here. */
  readonly present: { readonly students: number; readonly clips: number };
}

/** Belongs to a clip, and comes and stays with it. */
const OF_CLIP: readonly TableName[] = [
  'track',
  'survey',
  'band_turn',
  'tracking',
  'detection',
  'series',
  'strike',
];
const OF_STRIKE: readonly TableName[] = ['mark', 'measured', 'repeat_marking', 'finding'];
/** Numbered by each database for itself. */
const NUMBERED: readonly TableName[] = ['detection', 'library_change', 'deed'];

/**
 * Into an empty gym with its name and library, into another one beside what is there. What is here
 * already stays as it is.
 *
 * @param asFound a clip as its film is
 */
export async function takeOver(
  trx: Db,
  { rows, manifest }: { readonly rows: RowsOf; readonly manifest: Manifest },
  asFound: (clip: Row) => Row,
): Promise<TakenOver> {
  const here = await gymForWriting(trx);
  const isEmpty = !(await trx.selectFrom('student').select('id').executeTakeFirst());
  if (isEmpty) {
    for (const { id: _, created_at: __, ...rest } of rows('gym')) {
      await trx.updateTable('gym').set(rest).where('id', '=', here.id).execute();
    }
  }
  let added = 0;
  /** The ids of those that came. */
  const add = async (
    table: TableName,
    isWanted: (row: Row) => boolean,
    change: (row: Row) => Row = (row) => row,
  ): Promise<Set<string>> => {
    const ids = new Set<string>();
    for (const row of rows(table)) {
      if (!isWanted(row)) continue;
      const { id, ...rest } = change(row);
      await insertRow(
        trx,
        table,
        NUMBERED.includes(table) || id === undefined ? rest : { id, ...rest },
      );
      ids.add(String(id));
      added += 1;
    }
    return ids;
  };
  /** Rows whose id is not here, and whose owner is. */
  const missing = async (table: TableName, own?: { column: string; ids: ReadonlySet<string> }) => {
    const known = await valuesOf(trx, table, 'id');
    return (row: Row) =>
      !known.has(String(row.id)) &&
      (!own || row[own.column] === null || own.ids.has(String(row[own.column])));
  };
  const ofGym = (row: Row): Row => ({ ...row, gym_id: here.id });

  if (isEmpty) await add('library_change', () => true, ofGym);
  const setups = await valuesOf(trx, 'camera_setup', 'name');
  const isNewSetup = await missing('camera_setup');
  await add('camera_setup', (row) => isNewSetup(row) && !setups.has(String(row.name)), ofGym);

  const students = await add('student', await missing('student'), ofGym);
  const everybody = await valuesOf(trx, 'student', 'id');
  const ofStudent = { column: 'student_id', ids: everybody };
  await add('consent', await missing('consent', ofStudent));
  await add('sharing', await missing('sharing', ofStudent));

  const films = await valuesOf(trx, 'clip', "student_id || ' ' || sha256");
  const isNewClip = await missing('clip', ofStudent);
  const clips = await add(
    'clip',
    (clip) => isNewClip(clip) && !films.has(`${clip.student_id} ${clip.sha256}`),
    asFound,
  );
  let strikes: ReadonlySet<string> = new Set();
  for (const table of OF_CLIP) {
    const came = await add(table, (row) => clips.has(String(row.clip_id)));
    if (table === 'strike') strikes = came;
  }
  await add(
    'view_pair',
    (pair) => clips.has(String(pair.first_clip_id)) && clips.has(String(pair.second_clip_id)),
  );
  for (const table of OF_STRIKE) await add(table, (row) => strikes.has(String(row.strike_id)));

  const findings = await valuesOf(trx, 'finding', 'id');
  const active = await valuesOf(
    trx,
    'cue',
    "case status when 'active' then student_id || ' ' || technique end",
  );
  await add('cue', await missing('cue', { column: 'finding_id', ids: findings }), (cue) =>
    cue.status === 'active' && active.has(`${cue.student_id} ${cue.technique}`)
      ? { ...cue, status: 'closed', closed_at: now(), closed_because: 'replaced' }
      : cue,
  );
  const cues = await valuesOf(trx, 'cue', 'id');
  await add('prescription', await missing('prescription', ofStudent), (row) => ({
    ...row,
    cue_id: cues.has(String(row.cue_id)) ? row.cue_id! : null,
  }));
  for (const table of ['drill_log', 'gate_step', 'note', 'field_test', 'hurt_note'] as const) {
    await add(table, await missing(table, ofStudent));
  }
  await add('plan_item', await missing('plan_item', ofStudent), ofGym);
  const isHere = (id: Row[string] | undefined, among: ReadonlySet<string>) =>
    id === null || among.has(String(id));
  if (isEmpty) {
    await add(
      'deed',
      (row) => isHere(row.student_id, everybody) && isHere(row.clip_id, clips),
      ofGym,
    );
  }
  const of = (table: TableName) => manifest.counts[table] ?? 0;
  return {
    added: { students: students.size, clips: clips.size, rows: added },
    present: { students: of('student') - students.size, clips: of('clip') - clips.size },
  };
}

/** What an expression of ours is in each row of a table, as text; nulls left out. */
async function valuesOf(trx: Db, table: TableName, expression: string): Promise<Set<string>> {
  const { rows } = await sql<{ value: string | null }>`
    select ${sql.raw(expression)} as value from ${sql.table(table)}`.execute(trx);
  return new Set(rows.flatMap(({ value }) => (value === null ? [] : [String(value)])));
}
