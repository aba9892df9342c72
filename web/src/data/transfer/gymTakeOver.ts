/** The rows of a gym's file put beside those that are here, in one transaction. */
import { now, type Db } from '../database/db';
import { gymForWriting } from '../gym/gym';
import { insertRow, rowsOf, type Row, type TableName } from './gymTables';

export type Contents = Readonly<Record<TableName, Row[]>>;

export interface TakenOver {
  readonly added: { readonly students: number; readonly clips: number; readonly rows: number };
  /** Of the file, here already; these stay as they are here. */
  readonly present: { readonly students: number; readonly clips: number };
}

/** Belongs to a clip, and comes and stays with it. */
const OF_CLIP: readonly TableName[] = [
  'track',
  'survey',
  'tracking',
  'detection',
  'series',
  'strike',
];
const OF_STRIKE: readonly TableName[] = ['mark', 'measured', 'repeat_marking', 'finding'];
/** Numbered by each database for itself. */
const NUMBERED: readonly TableName[] = ['detection', 'library_change'];

/**
 * Into an empty gym with its name and library, into another one beside what is there. What is here
 * already stays as it is.
 */
export async function takeOver(trx: Db, contents: Contents): Promise<TakenOver> {
  const here = await gymForWriting(trx);
  const isEmpty = !(await trx.selectFrom('student').select('id').executeTakeFirst());
  const [gym] = contents.gym;
  if (isEmpty && gym) {
    const { id: _, created_at: __, ...rest } = gym;
    await trx.updateTable('gym').set(rest).where('id', '=', here.id).execute();
  }
  const idsOf = async (table: TableName) =>
    new Set((await rowsOf(trx, table)).map((row) => String(row.id)));
  let rows = 0;
  const add = async (table: TableName, wanted: readonly Row[]): Promise<Set<string>> => {
    const ids = new Set<string>();
    for (const row of wanted) {
      const { id, ...rest } = row;
      await insertRow(trx, table, NUMBERED.includes(table) ? rest : row);
      ids.add(String(id));
      rows += 1;
    }
    return ids;
  };
  /** Rows whose id is not here, and whose owner is. */
  const missing = async (table: TableName, own?: { column: string; ids: ReadonlySet<string> }) => {
    const known = await idsOf(table);
    return contents[table].filter(
      (row) =>
        !known.has(String(row.id)) &&
        (!own || row[own.column] === null || own.ids.has(String(row[own.column]))),
    );
  };
  const ofGym = (row: Row): Row => ({ ...row, gym_id: here.id });

  if (isEmpty) await add('library_change', contents.library_change.map(ofGym));
  const setups = new Set((await rowsOf(trx, 'camera_setup')).map(({ name }) => name));
  const newSetups = (await missing('camera_setup')).filter(({ name }) => !setups.has(name!));
  await add('camera_setup', newSetups.map(ofGym));

  const students = await add('student', (await missing('student')).map(ofGym));
  const everybody = await idsOf('student');
  await add('consent', await missing('consent', { column: 'student_id', ids: everybody }));

  const filmKey = ({ student_id, sha256: hash }: Row) => `${student_id} ${hash}`;
  const films = new Set((await rowsOf(trx, 'clip')).map(filmKey));
  const newClips = (await missing('clip', { column: 'student_id', ids: everybody })).filter(
    (clip) => !films.has(filmKey(clip)),
  );
  const clips = await add('clip', newClips);
  const strikes = new Set<string>();
  for (const table of OF_CLIP) {
    const own = contents[table].filter((row) => clips.has(String(row.clip_id)));
    const added = await add(table, own);
    if (table === 'strike') added.forEach((id) => strikes.add(id));
  }
  await add(
    'view_pair',
    contents.view_pair.filter(
      (pair) => clips.has(String(pair.first_clip_id)) && clips.has(String(pair.second_clip_id)),
    ),
  );
  for (const table of OF_STRIKE) {
    await add(
      table,
      contents[table].filter((row) => strikes.has(String(row.strike_id))),
    );
  }
  const findings = await idsOf('finding');
  const active = new Set(
    (await rowsOf(trx, 'cue'))
      .filter(({ status }) => status === 'active')
      .map((cue) => `${cue.student_id} ${cue.technique}`),
  );
  const cues = (await missing('cue', { column: 'finding_id', ids: findings })).map((cue): Row =>
    cue.status === 'active' && active.has(`${cue.student_id} ${cue.technique}`)
      ? { ...cue, status: 'closed', closed_at: now(), closed_because: 'replaced' }
      : cue,
  );
  await add('cue', cues);
  const cueIds = await idsOf('cue');
  const prescriptions = await missing('prescription', { column: 'student_id', ids: everybody });
  await add(
    'prescription',
    prescriptions.map((row) => ({
      ...row,
      cue_id: cueIds.has(String(row.cue_id)) ? row.cue_id! : null,
    })),
  );
  for (const table of ['drill_log', 'gate_step', 'note', 'field_test'] as const) {
    await add(table, await missing(table, { column: 'student_id', ids: everybody }));
  }
  const plan = await missing('plan_item', { column: 'student_id', ids: everybody });
  await add('plan_item', plan.map(ofGym));
  return {
    added: { students: students.size, clips: clips.size, rows },
    present: {
      students: contents.student.length - students.size,
      clips: contents.clip.length - clips.size,
    },
  };
}
