/** The gym's library: the catalogue as it has edited it, its schools, and who changed what when. */
import {
  NO_EDITS,
  touchedBy,
  withChange,
  libraryFrom,
  type Edits,
  type Library,
  type LibraryChange,
} from '@sinew/core/judge/library/edits';
import { schoolSchema, type School } from '@sinew/core/judge/school/schools';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { now, stamps, type Db } from '../database/db';
import { changedMeanwhile, isAsSeen } from '../database/seen';
import { gymForWriting } from './gym';
import { COLUMNS } from '../database/columns';

export interface LibraryEntry {
  readonly at: string;
  readonly by: string;
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

export async function editsOf(db: Db): Promise<Edits> {
  const row = await db.selectFrom('gym').select('library').executeTakeFirst();
  return COLUMNS.gym.library.readOr(row?.library ?? null, NO_EDITS);
}

export async function libraryOf(db: Db): Promise<Library> {
  return libraryFrom(await editsOf(db));
}

/**
 * Change one thing, and write it into the history, or neither.
 *
 * @param seen what it is about, as whoever changes it has seen it; not asked when left out
 * @throws Problem or ZodError when the change does not fit, or it is not as it was seen
 */
export async function changeLibrary(
  db: Db,
  by: string,
  change: LibraryChange,
  seen?: { readonly was: unknown },
): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const gym = await gymForWriting(trx);
    if (change.kind !== 'all') await mustBeReadable(trx);
    const present = await editsOf(trx);
    if (seen && !isAsSeen(touchedBy(present, change), seen.was)) throw changedMeanwhile('This was');
    const { edits, what, before, after } = withChange(present, change);
    await trx
      .updateTable('gym')
      .set({ library: COLUMNS.gym.library.write(edits), updated_at: now() })
      .where('id', '=', gym.id)
      .execute();
    await trx
      .insertInto('library_change')
      .values({ gym_id: gym.id, by, what, before, after, ...stamps() })
      .execute();
  });
}

/** One change would write over all that the gym has changed before, and that a backup may still have. */
async function mustBeReadable(trx: Db): Promise<void> {
  const row = await trx.selectFrom('gym').select('library').executeTakeFirst();
  if (COLUMNS.gym.library.isReadable(row?.library ?? null)) return;
  throw new Problem('unreadable', {
    happened: 'What is kept of the gym’s library cannot be read.',
    safe: 'Nothing was changed; strikes are judged by the library as it comes.',
    todo: 'Go back to a backup under Gym, or take a library from a file.',
  });
}

const SHOWN = 200;

/** Newest first. */
export async function libraryHistory(db: Db): Promise<LibraryEntry[]> {
  return db
    .selectFrom('library_change')
    .select(['created_at as at', 'by', 'what', 'before', 'after'])
    .orderBy('id', 'desc')
    .limit(SHOWN)
    .execute();
}

/** A student's own choices of school. */
export async function setStudentSchool(db: Db, studentId: string, school: School): Promise<void> {
  await db
    .updateTable('student')
    .set({ school: COLUMNS.student.school.write(schoolSchema.parse(school)), updated_at: now() })
    .where('id', '=', studentId)
    .execute();
}
