/** What was deleted and can be brought back for thirty days; what goes for good, and when. */
import type { Db } from './database';
import { deleteClip, destroyClip, purgeFilm, restoreClip } from './clipEnds';
import type { ClipFiles } from './clipFiles';
import { measureStudent } from './measured';
import { setDeleted, type SoftTable } from './softDelete';
import { today } from './today';

export const KEPT_DAYS = 30;
const DAY = 86_400_000;

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
      ...{ kind, id, what, student, deletedAt: deleted_at! },
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

/** What has been in the trash for thirty days goes for good, films with their files. */
export async function emptyTrash(db: Db, files: ClipFiles, at: Date): Promise<void> {
  const before = new Date(at.getTime() - KEPT_DAYS * DAY).toISOString();
  const clips = await db
    .selectFrom('clip')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .select('clip.id')
    .where(({ or, eb }) =>
      or([eb('clip.deleted_at', '<', before), eb('student.deleted_at', '<', before)]),
    )
    .execute();
  for (const { id } of clips) await destroyClip(db, files, id);
  for (const table of ['student', 'note', 'field_test', 'drill_log'] as const) {
    await db.deleteFrom(table).where('deleted_at', '<', before).execute();
  }
}

/**
 * Films of students whose consent has run out go, with every point of a body in them. What was
 * measured is measured one last time before: numbers stay.
 */
export async function purgeWithoutConsent(db: Db, files: ClipFiles): Promise<string[]> {
  const day = today();
  const students = await db
    .selectFrom('consent')
    .innerJoin('student', 'student.id', 'consent.student_id')
    .select('student.id')
    .distinct()
    .where('consent.expires_on', '<=', day)
    .where('consent.withdrawn_at', 'is', null)
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
            .where(({ or, eb, ref }) =>
              or([eb('student.is_minor', '=', 0), eb(ref('other.given_by'), '=', 'guardian')]),
            ),
        ),
      ),
    )
    .execute();
  const purged: string[] = [];
  for (const { id: studentId } of students) {
    await measureStudent(db, studentId);
    const clips = await db
      .selectFrom('clip')
      .select(['id', 'sha256'])
      .where('student_id', '=', studentId)
      .where('purged_at', 'is', null)
      .execute();
    for (const { id, sha256 } of clips) {
      await purgeFilm(db, files, id);
      purged.push(sha256);
    }
  }
  return purged;
}
