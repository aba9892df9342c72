/** Who did what: written down as it is done, shown under Gym and where it was done. */
import { now, stamps, type Db } from '../database/db';
import { gymForWriting } from '../gym/gym';
import { dayIn } from '../database/today';
import type { DeedKind } from './deedKinds';
import { whoIsHere } from './whoAsks';

interface About {
  readonly studentId?: string | null;
  readonly clipId?: string | null;
  /** What it was, in a few words; no names of students. */
  readonly detail?: string;
}

/** Write down what was done. A clip marked all day by one coach is one line. */
export async function noteDeed(
  db: Db,
  by: string,
  what: DeedKind,
  { studentId = null, clipId = null, detail = '' }: About = {},
): Promise<void> {
  const { id: gym_id } = await gymForWriting(db);
  const student_id = studentId ?? (clipId === null ? null : await studentOf(db, clipId));
  if (what === 'marked') {
    const last = await db
      .selectFrom('deed')
      .select(['id', 'by', 'created_at'])
      .where('clip_id', '=', clipId)
      .where('what', '=', 'marked')
      .orderBy('id', 'desc')
      .executeTakeFirst();
    if (last?.by === by && dayIn(new Date(last.created_at)) === dayIn(new Date())) {
      await db.updateTable('deed').set({ updated_at: now() }).where('id', '=', last.id).execute();
      return;
    }
  }
  await db
    .insertInto('deed')
    .values({ gym_id, by, what, detail, student_id, clip_id: clipId, ...stamps() })
    .execute();
}

async function studentOf(db: Db, clipId: string): Promise<string | null> {
  const row = await db
    .selectFrom('clip')
    .select('student_id')
    .where('id', '=', clipId)
    .executeTakeFirst();
  return row?.student_id ?? null;
}

/** The same of who is asking just now. */
export async function did(db: Db, what: DeedKind, about: About = {}): Promise<void> {
  const asker = await whoIsHere();
  await noteDeed(db, asker?.name ?? 'somebody', what, about);
}

/** Of something said of a strike. */
export async function didToStrike(
  db: Db,
  what: DeedKind,
  strikeId: string,
  detail: string,
): Promise<void> {
  const row = await db
    .selectFrom('strike')
    .select('clip_id')
    .where('id', '=', strikeId)
    .executeTakeFirst();
  await did(db, what, { clipId: row?.clip_id ?? null, detail });
}

export interface Deed {
  readonly id: number;
  readonly by: string;
  readonly what: DeedKind;
  readonly detail: string;
  /** The student it was about, if any. */
  readonly student: string | null;
  readonly studentId: string | null;
  readonly clipId: string | null;
  /** ISO 8601. */
  readonly at: string;
}

/** The newest first; of one clip, or of one kind, where it is said. */
export async function deeds(
  db: Db,
  limit: number,
  clipId?: string,
  what?: DeedKind,
): Promise<Deed[]> {
  const rows = await db
    .selectFrom('deed')
    .leftJoin('student', 'student.id', 'deed.student_id')
    .select(['deed.id', 'by', 'what', 'detail', 'deed.student_id', 'clip_id', 'deed.updated_at'])
    .select(['student.name', 'student.deleted_at'])
    .$if(clipId !== undefined, (query) => query.where('clip_id', '=', clipId!))
    .$if(what !== undefined, (query) => query.where('what', '=', what!))
    .orderBy('deed.updated_at', 'desc')
    .orderBy('deed.id', 'desc')
    .limit(limit)
    .execute();
  return rows.map((row) => {
    const isHere = row.student_id !== null && row.deleted_at === null;
    return {
      id: row.id,
      by: row.by,
      what: row.what,
      detail: row.detail,
      student: isHere ? row.name : null,
      studentId: isHere ? row.student_id : null,
      clipId: isHere ? row.clip_id : null,
      at: row.updated_at,
    };
  });
}
