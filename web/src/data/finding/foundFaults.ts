/**
 * Which faults every measured strike shows, by the library and the schools of today. Kept beside the
 * readings: where a limit or a school changes, what was measured is judged again and not measured.
 */
import { createHash } from 'node:crypto';
import { sql, type InferResult } from 'kysely';
import { z } from 'zod';
import { looksSchema } from '@sinew/core/judge/eye/blindLook';
import { judge } from '@sinew/core/judge/fault/judge';
import type { Finding } from '@sinew/core/judge/fault/finding';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import type { School } from '@sinew/core/judge/school/schools';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { rulesOfStrike } from '@sinew/core/analysis/rules';
import type { Db } from '../database/db';
import type { Library } from '@sinew/core/judge/library/edits';
import { libraryOf } from '../gym/library';
import { unpacked } from './packedReadings';
import { studentById } from '../student/students';
import { COLUMNS } from '../database/columns';
import { jsonColumn } from '../database/jsonColumn';

/** Faults by name in the catalogue; what can't be told is in neither list. */
export interface Shows {
  readonly found: string[];
  readonly clear: string[];
}

export function shownBy(findings: readonly Finding[]): Shows {
  const being = (status: Finding['status']) =>
    findings.filter((one) => one.status === status).map(({ fault }) => fault);
  return { found: being('found'), clear: being('clear') };
}

/** Says what a student's strikes are judged by: another text, another judgement. */
export function rulesOf(library: Library, school: School): string {
  return createHash('sha1')
    .update(JSON.stringify([library, school]))
    .digest('base64url');
}

/** Measured strikes with all that they are judged by. */
const strikesToJudge = (db: Db) =>
  db
    .selectFrom('measured')
    .innerJoin('strike', 'strike.id', 'measured.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .select(['measured.strike_id', 'measured.readings', 'strike.technique', 'strike.school'])
    .select(['strike.situation', 'strike.range', 'strike.audit', 'strike.looks'])
    .select((eb) =>
      eb
        .selectFrom('strike as beside')
        .select(sql<string | null>`json_group_array(json(beside.looks))`.as('looks'))
        .whereRef('beside.clip_id', '=', 'strike.clip_id')
        .whereRef('beside.id', '!=', 'strike.id')
        .where('beside.removed_at', 'is', null)
        .where(sql<boolean>`json_valid(beside.looks)`)
        .as('others_looks'),
    )
    .select(['student.id as student_id', 'student.school as own_school'])
    .select((eb) =>
      eb
        .exists(
          eb
            .selectFrom('strike as other')
            .select('other.id')
            .whereRef('other.clip_id', '=', 'strike.clip_id')
            .whereRef('other.combination', '=', 'strike.combination')
            .whereRef('other.id', '!=', 'strike.id')
            .where('other.removed_at', 'is', null),
        )
        .as('is_of_several'),
    );

type ToJudge = InferResult<ReturnType<typeof strikesToJudge>>[number];

const LOOKS_BESIDE = jsonColumn('blind looks at other strikes', z.array(looksSchema));

const schoolIn = (json: string | null) => COLUMNS.strike.school.readOr(json, {});

/** What a strike shows by a library, its readings as they are kept. */
function shown(row: ToJudge, readings: Readings, library: Library): Shows {
  const strike = {
    ...(row.situation !== null && { situation: row.situation }),
    ...(row.range !== null && { range: row.range }),
    audit: COLUMNS.strike.audit.readOr(row.audit, {}),
    looks: COLUMNS.strike.looks.readOr(row.looks, []),
    school: schoolIn(row.school),
  };
  const student = { school: schoolIn(row.own_school) };
  const beside = {
    isOfSeveral: Boolean(row.is_of_several),
    others: LOOKS_BESIDE.readOr(row.others_looks, []),
  };
  const rules = rulesOfStrike(strike, beside, student, library);
  return shownBy(judge(techniqueById(row.technique), readings, rules));
}

/** What a student's measured strikes show that were judged by other rules than today's. */
export async function judgedAnew(
  db: Db,
  studentId: string,
  clipId?: string,
): Promise<readonly { readonly id: string; readonly rules: string; readonly shows: Shows }[]> {
  const [student, library] = await Promise.all([studentById(db, studentId), libraryOf(db)]);
  if (!student) return [];
  const rules = rulesOf(library, student.school);
  const rows = await strikesToJudge(db)
    .where('student.id', '=', studentId)
    .where('strike.removed_at', 'is', null)
    .where('measured.rules', '!=', rules)
    .$if(clipId !== undefined, (query) => query.where('clip.id', '=', clipId!))
    .execute();
  return rows.map((row) => ({
    id: row.strike_id,
    rules,
    shows: shown(row, unpacked(row.readings), library),
  }));
}

/** What a change of the library does to strikes that were measured. */
export interface Effect {
  /** So many of the newest were looked at. */
  readonly strikes: number;
  /** Strikes that show a fault they did not show before, and of how many students they are. */
  readonly more: { readonly strikes: number; readonly students: number };
  /** Strikes that no longer show one. */
  readonly fewer: { readonly strikes: number; readonly students: number };
}

const LOOKED_AT = 500;

export async function effectOf(db: Db, before: Library, after: Library): Promise<Effect> {
  const rows = await strikesToJudge(db)
    .where('measured.strike_id', 'in', (eb) =>
      eb
        .selectFrom('measured as one')
        .innerJoin('strike as its', 'its.id', 'one.strike_id')
        .innerJoin('clip as film', 'film.id', 'its.clip_id')
        .select('one.strike_id')
        .where('film.deleted_at', 'is', null)
        .where('its.removed_at', 'is', null)
        .orderBy('film.created_at', 'desc')
        .limit(LOOKED_AT),
    )
    .execute();
  const both = rows.map((row) => {
    const readings = unpacked(row.readings);
    const [then, now] = [before, after].map((one) => shown(row, readings, one).found);
    const isMissing = (from: readonly string[]) => (one: string) => !from.includes(one);
    return {
      studentId: row.student_id,
      more: now!.some(isMissing(then!)),
      fewer: then!.some(isMissing(now!)),
    };
  });
  const tally = (way: 'more' | 'fewer') => {
    const those = both.filter((one) => one[way]);
    return {
      strikes: those.length,
      students: new Set(those.map(({ studentId }) => studentId)).size,
    };
  };
  return { strikes: rows.length, more: tally('more'), fewer: tally('fewer') };
}
