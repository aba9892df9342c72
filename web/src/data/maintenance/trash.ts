/** What was deleted and can be brought back for thirty days; what goes for good, and when. */
import { OF_AGE, yearsBefore } from '@sinew/core/foundation/calendar/age';
import type { Erasure } from './eraseRows';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Db } from '../database/db';
import { deleteClip, destroyClip, purgeFilm, restoreClip } from '../clip/clipEnds';
import type { ClipFiles } from '../film/clipFiles';
import { keepMeasured } from '../finding/measured';
import { askIn } from '../threads/threads';
import { setDeleted, type SoftTable } from '../database/softDelete';
import { DAY_MS } from '../database/today';

export const KEPT_DAYS = 30;

export const TRASH_KINDS = ['student', 'clip', 'note', 'test', 'log'] as const;
export type TrashKind = (typeof TRASH_KINDS)[number];

export interface Trashed {
  readonly kind: TrashKind;
  readonly id: string;
  readonly what: string;
  readonly student: string;
  readonly deletedAt: string;
}

/** Newest first. */
export async function trash(db: Db): Promise<Trashed[]> {
  const ofStudent = (table: 'clip' | 'note' | 'field_test' | 'drill_log') =>
    db
      .selectFrom(table)
      .innerJoin('student', 'student.id', `${table}.student_id`)
      .where(`${table}.deleted_at`, 'is not', null)
      .where('student.deleted_at', 'is', null)
      .select([`${table}.id`, `${table}.deleted_at`, 'student.name as student']);
  const [students, clips, notes, tests, logs] = await Promise.all([
    db
      .selectFrom('student')
      .select(['id', 'name', 'deleted_at'])
      .where('deleted_at', 'is not', null)
      .execute(),
    ofStudent('clip').select('clip.file_name as what').execute(),
    ofStudent('note').select('note.text as what').execute(),
    ofStudent('field_test').select('field_test.kind as what').execute(),
    ofStudent('drill_log').select('drill_log.name as what').execute(),
  ]);
  type Row = { id: string; what: string; student: string; deleted_at: string | null };
  const as =
    (kind: TrashKind) =>
    ({ id, what, student, deleted_at }: Row): Trashed => ({
      kind,
      id,
      what,
      student,
      deletedAt: deleted_at!,
    });
  return [
    ...students.map(({ name, ...row }) => as('student')({ ...row, what: name, student: name })),
    ...clips.map(as('clip')),
    ...notes.map(as('note')),
    ...tests.map(as('test')),
    ...logs.map(as('log')),
  ].sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
}

const TABLES: Readonly<Record<Exclude<TrashKind, 'clip'>, SoftTable>> = {
  student: 'student',
  note: 'note',
  test: 'field_test',
  log: 'drill_log',
};

/** Put something away, or bring it back. */
export async function setTrashed(
  db: Db,
  kind: TrashKind,
  id: string,
  isTrashed: boolean,
): Promise<void> {
  if (kind !== 'clip') return setDeleted(db, TABLES[kind], id, isTrashed);
  return isTrashed ? deleteClip(db, id) : restoreClip(db, id);
}

const before = (at: Date) => new Date(at.getTime() - KEPT_DAYS * DAY_MS).toISOString();

const clipsDue = (db: Db, at: Date) =>
  db
    .selectFrom('clip')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .select('clip.id')
    .where(({ or, eb }) =>
      or([eb('clip.deleted_at', '<', before(at)), eb('student.deleted_at', '<', before(at))]),
    )
    .execute();

/** How many clips and students would go for good. */
export async function dueInTrash(db: Db, at: Date): Promise<number> {
  const students = await db
    .selectFrom('student')
    .select('id')
    .where('deleted_at', '<', before(at))
    .execute();
  return students.length + (await clipsDue(db, at)).length;
}

/** What has gone for good: its rows, and films whose files are gone. */
export interface Gone {
  readonly rows: readonly Erasure[];
  readonly films: readonly string[];
}

/** What has been in the trash for thirty days goes for good, films with their files. */
export async function emptyTrash(db: Db, files: ClipFiles, at: Date): Promise<Gone> {
  const clips = (await clipsDue(db, at)).map(({ id }) => id);
  const films: string[] = [];
  for (const id of clips) {
    const film = await destroyClip(db, files, id);
    if (film) films.push(film);
  }
  const rows: Erasure[] = [{ table: 'clip', column: 'id', ids: clips }];
  for (const table of ['student', 'note', 'field_test', 'drill_log'] as const) {
    const gone = await db
      .deleteFrom(table)
      .where('deleted_at', '<', before(at))
      .returning('id')
      .execute();
    rows.push({ table, column: 'id', ids: gone.map(({ id }) => id) });
  }
  return { rows, films };
}

/** Students whose consent has run out or been withdrawn by a day, with no other one in force. */
async function withoutConsent(db: Db, day: Day): Promise<string[]> {
  const students = await db
    .selectFrom('consent')
    .innerJoin('student', 'student.id', 'consent.student_id')
    .select('student.id')
    .distinct()
    .where(({ or, and, eb }) =>
      or([
        and([eb('consent.expires_on', '<=', day), eb('consent.withdrawn_at', 'is', null)]),
        eb('consent.films_until', '<=', day),
      ]),
    )
    .where(({ not, exists, selectFrom }) =>
      not(
        exists(
          selectFrom('consent as other')
            .select('other.id')
            .whereRef('other.student_id', '=', 'student.id')
            .where('other.withdrawn_at', 'is', null)
            .where(({ or, eb }) =>
              or([eb('other.expires_on', 'is', null), eb('other.expires_on', '>', day)]),
            )
            // A minor's own word is not enough.
            .where(({ or, and, eb, ref }) =>
              or([
                eb(ref('other.given_by'), '=', 'guardian'),
                eb('student.born_on', '<=', yearsBefore(day, OF_AGE)),
                and([eb('student.born_on', 'is', null), eb('student.is_minor', '=', 0)]),
              ]),
            ),
        ),
      ),
    )
    .execute();
  return students.map(({ id }) => id);
}

/** Films that go on a day because no consent is in force any more. */
export async function filmsWithoutConsent(db: Db, day: Day) {
  const students = await withoutConsent(db, day);
  return db
    .selectFrom('clip')
    .select(['id', 'sha256', 'student_id'])
    .where('student_id', 'in', students)
    .where('purged_at', 'is', null)
    .execute();
}

type FilmOf = { readonly id: string; readonly sha256: string; readonly student_id: string };

/**
 * Films go that may not be kept, with every point of a body in them. What was measured is measured one
 * last time before: numbers stay.
 *
 * @returns the films whose files are gone, by their SHA-256
 */
export async function purgeFilms(
  db: Db,
  files: ClipFiles,
  clips: readonly FilmOf[],
): Promise<string[]> {
  for (const studentId of new Set(clips.map(({ student_id }) => student_id))) {
    await keepMeasured(db, await askIn(files.folder, 'toKeep', studentId, Infinity));
  }
  const gone: string[] = [];
  for (const { id, sha256 } of clips) {
    if (await purgeFilm(db, files, id)) gone.push(sha256);
  }
  return gone;
}
