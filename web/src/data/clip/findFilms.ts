/**
 * Films of all students, found by what is said of them: who, which strikes, from where, when, the leaks
 * that are worked on and the coach's own words. SQLite's full-text index holds their words; those of a
 * film that has changed are thrown away by triggers and made anew when somebody looks.
 */
import { group } from 'd3-array';
import { sql, type SqlBool } from 'kysely';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { TECHNIQUES, techniqueById } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { faultById } from '@sinew/core/judge/fault/faults';
import { libraryOf } from '../gym/library';
import { contactAt, contactIn } from '../bench/placedBlob';
import type { Db } from '../database/db';
import { pastTime } from '../database/today';

export const FILM_ORDERS = ['newest', 'oldest', 'student'] as const;
export type FilmOrder = (typeof FILM_ORDERS)[number];

export interface FilmsAsked {
  /** Each begins a word that is said of the film; signs such as # count for nothing. */
  readonly words: string;
  readonly technique: string | null;
  readonly order: FilmOrder;
  readonly most: number;
}

export interface FoundFilm {
  readonly id: string;
  readonly student: { readonly id: string; readonly name: string };
  readonly fileName: string;
  readonly createdAt: string;
  readonly isPurged: boolean;
  /** "3 × Cross, Jab". */
  readonly shows: string;
  /** "from the side, full speed, round 2". */
  readonly filmed: string;
  /** What is noted of the film, then of its strikes. */
  readonly notes: readonly string[];
  readonly contactAt: number | null;
}

export interface FilmsFound {
  readonly films: readonly FoundFilm[];
  readonly total: number;
  /** Tags of all films that are found, the most used first. */
  readonly tags: readonly string[];
}

/** So many films get their words between two breaths. */
const AT_ONCE = 200;
const MOST_TAGS = 12;

export async function findFilms(db: Db, asked: FilmsAsked): Promise<FilmsFound> {
  await fillWords(db);
  const { technique, order, most } = asked;
  const match = matchOf(asked.words);
  const matching = db
    .selectFrom('clip')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .where('clip.deleted_at', 'is', null)
    .where('student.deleted_at', 'is', null)
    .$if(match !== null, (query) =>
      query.where(
        sql<SqlBool>`clip.id in (select film_text.clip_id from film_words
          join film_text on film_text.id = film_words.rowid where film_words match ${match})`,
      ),
    )
    .$if(technique !== null, (query) =>
      query.where('clip.id', 'in', (of) =>
        of
          .selectFrom('strike')
          .select('clip_id')
          .where('technique', '=', technique!)
          .where('removed_at', 'is', null),
      ),
    );
  const rows = await matching
    .select(['clip.id', 'student_id', 'student.name', 'file_name', 'clip.created_at', 'view'])
    .select(['intent', 'round', 'note', 'purged_at'])
    .$if(order === 'student', (query) => query.orderBy('student.name'))
    .orderBy('clip.created_at', order === 'oldest' ? 'asc' : 'desc')
    .orderBy('clip.id')
    .limit(most)
    .execute();
  const { total } = await matching
    .select((of) => of.fn.countAll<number>().as('total'))
    .executeTakeFirstOrThrow();
  const noted = await matching.select('note').where('note', 'is not', null).execute();
  const notedStrikes = await db
    .selectFrom('strike')
    .select('note')
    .where('note', 'is not', null)
    .where('removed_at', 'is', null)
    .where('clip_id', 'in', matching.select('clip.id'))
    .execute();
  const strikes = await strikesIn(
    db,
    rows.map(({ id }) => id),
  );
  return {
    total,
    tags: tagsOf([...noted, ...notedStrikes].map(({ note }) => note!)),
    films: rows.map((row): FoundFilm => {
      const own = strikes.get(row.id) ?? [];
      return {
        id: row.id,
        student: { id: row.student_id, name: row.name },
        fileName: row.file_name,
        createdAt: row.created_at,
        isPurged: row.purged_at !== null,
        shows: showsOf(own),
        filmed: filmedOf(row),
        notes: [row.note, ...own.map(({ note }) => note)].filter((one) => one !== null),
        contactAt: contactIn(own[0]?.contact_at ?? null),
      };
    }),
  };
}

/**
 * The words as FTS5 takes them: each in quotes, so that nothing typed is a command, each only begun.
 *
 * @returns null for no words
 */
export function matchOf(words: string): string | null {
  const parts = words.match(/[\p{L}\p{N}]+/gu) ?? [];
  return parts.length === 0 ? null : parts.map((part) => `"${part}"*`).join(' ');
}

/** Words behind a #, in small letters, the most used first. */
export function tagsOf(notes: readonly string[]): string[] {
  const tags = notes.flatMap((note) =>
    [...note.matchAll(/#([\p{L}\p{N}]+)/gu)].map(([, tag]) => tag!.toLocaleLowerCase()),
  );
  return [...group(tags, (tag) => tag)]
    .sort(([a, as], [b, bs]) => bs.length - as.length || a.localeCompare(b))
    .slice(0, MOST_TAGS)
    .map(([tag]) => tag);
}

async function strikesIn(db: Db, clipIds: readonly string[]) {
  const rows = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('mark', (join) =>
      join.onRef('mark.strike_id', '=', 'strike.id').on('mark.event', '=', 'contact'),
    )
    .select(['strike.clip_id', 'technique', 'side', 'strike.note'])
    .select(contactAt)
    .where('removed_at', 'is', null)
    .where('strike.clip_id', 'in', clipIds)
    .orderBy('position')
    .execute();
  return group(rows, ({ clip_id }) => clip_id);
}

const nameOf = (technique: string) =>
  TECHNIQUES.some(({ id }) => id === technique) ? techniqueById(technique).name : technique;

function showsOf(strikes: readonly { readonly technique: string }[]): string {
  const kinds = group(strikes, ({ technique }) => technique);
  return [...kinds]
    .map(([id, same]) => (same.length === 1 ? nameOf(id) : `${same.length} × ${nameOf(id)}`))
    .join(', ');
}

function filmedOf({
  view,
  intent,
  round,
}: {
  readonly view: keyof typeof VIEW_GUIDE;
  readonly intent: keyof typeof INTENT_NAMES | null;
  readonly round: number | null;
}): string {
  return [
    VIEW_GUIDE[view].name.toLowerCase(),
    intent && INTENT_NAMES[intent],
    round && `round ${round}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** Gives every film that has none its words. */
async function fillWords(db: Db): Promise<void> {
  const { catalogue } = await libraryOf(db);
  for (;;) {
    const rows = await db
      .selectFrom('clip')
      .innerJoin('student', 'student.id', 'clip.student_id')
      .leftJoin('film_text', 'film_text.clip_id', 'clip.id')
      .select(['clip.id', 'student.name', 'class_group', 'file_name', 'clip.created_at'])
      .select(['view', 'intent', 'round', 'note'])
      .where('film_text.id', 'is', null)
      .limit(AT_ONCE)
      .execute();
    if (rows.length === 0) return;
    const ids = rows.map(({ id }) => id);
    const [strikes, leaks] = [await strikesIn(db, ids), await leaksIn(db, ids)];
    const values = rows.map((row) => ({
      clip_id: row.id,
      words: [
        row.name,
        row.class_group,
        row.file_name,
        row.created_at.slice(0, 10),
        pastTime(row.created_at),
        filmedOf(row),
        row.note,
        ...(strikes.get(row.id) ?? []).flatMap(({ technique, side, note }) => [
          nameOf(technique),
          side,
          note,
        ]),
        ...(leaks.get(row.id) ?? []).map(({ fault }) => faultById(fault, catalogue)?.name ?? fault),
      ]
        .filter(Boolean)
        .join(' '),
    }));
    await db
      .insertInto('film_text')
      .values(values)
      .onConflict((conflict) => conflict.column('clip_id').doNothing())
      .execute();
  }
}

/** Leaks whose cue was taken. */
async function leaksIn(db: Db, clipIds: readonly string[]) {
  const rows = await db
    .selectFrom('finding')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .select(['strike.clip_id', 'finding.fault'])
    .where('finding.status', '=', 'accepted')
    .where('strike.clip_id', 'in', clipIds)
    .execute();
  return group(rows, ({ clip_id }) => clip_id);
}
