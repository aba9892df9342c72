/** Which rows go along when not all of a gym does: one student's, or what nobody has put away. */
import { sql, type RawBuilder } from 'kysely';
import type { TableName } from './gymTables';

export type Scope =
  | { readonly kind: 'all' }
  /** Without what was put away, or taken off a bench. */
  | { readonly kind: 'not-put-away' }
  /** Everything of one student, wherever it is, and nothing of anybody else. */
  | { readonly kind: 'student'; readonly id: string };

/** @returns a condition on the table's rows */
export function inScope(table: TableName, scope: Scope): RawBuilder<boolean> {
  return scope.kind === 'all' ? sql<boolean>`true` : CONDITIONS[table](partsOf(scope));
}

interface Parts {
  readonly students: RawBuilder<unknown>;
  readonly clips: RawBuilder<unknown>;
  readonly strikes: RawBuilder<unknown>;
  /** Of rows that can be put away by themselves. */
  readonly isKept: RawBuilder<unknown>;
  /** Of rows that belong to the whole gym. */
  readonly ofGym: RawBuilder<unknown>;
}

function partsOf(scope: Exclude<Scope, { kind: 'all' }>): Parts {
  if (scope.kind === 'student') {
    const clips = sql`(select id from clip where student_id = ${scope.id})`;
    return {
      students: sql`(select id from student where id = ${scope.id})`,
      clips,
      strikes: sql`(select id from strike where clip_id in ${clips})`,
      isKept: sql`true`,
      ofGym: sql`false`,
    };
  }
  const students = sql`(select id from student where deleted_at is null)`;
  const clips = sql`(select id from clip where deleted_at is null and student_id in ${students})`;
  return {
    students,
    clips,
    strikes: sql`(select id from strike where removed_at is null and clip_id in ${clips})`,
    isKept: sql`deleted_at is null`,
    ofGym: sql`true`,
  };
}

type Condition = (parts: Parts) => RawBuilder<boolean>;

const ofStudent: Condition = ({ students }) => sql`student_id in ${students}`;
const ofStudentAndKept: Condition = ({ students, isKept }) =>
  sql`student_id in ${students} and ${isKept}`;
const ofClip: Condition = ({ clips }) => sql`clip_id in ${clips}`;
const ofStrike: Condition = ({ strikes }) => sql`strike_id in ${strikes}`;
const ofGym: Condition = (parts) => sql`${parts.ofGym}`;

const CONDITIONS: Readonly<Record<TableName, Condition>> = {
  // A student without a gym fits nowhere.
  gym: () => sql`true`,
  library_change: ofGym,
  deed: ({ students, clips, ofGym: isOfGym }) =>
    sql`(student_id in ${students} or (student_id is null and ${isOfGym}))
      and (clip_id is null or clip_id in ${clips})`,
  camera_setup: ofGym,
  student: ({ students }) => sql`id in ${students}`,
  consent: ofStudent,
  sharing: ofStudent,
  clip: ({ clips }) => sql`id in ${clips}`,
  track: ofClip,
  survey: ofClip,
  band_turn: ofClip,
  tracking: ofClip,
  detection: ofClip,
  series: ofClip,
  strike: ({ strikes }) => sql`id in ${strikes}`,
  view_pair: ({ clips }) => sql`first_clip_id in ${clips} and second_clip_id in ${clips}`,
  mark: ofStrike,
  measured: ofStrike,
  repeat_marking: ofStrike,
  finding: ofStrike,
  cue: ({ students, strikes }) =>
    sql`student_id in ${students}
      and finding_id in (select id from finding where strike_id in ${strikes})`,
  prescription: ofStudent,
  drill_log: ofStudentAndKept,
  gate_step: ofStudent,
  plan_item: ({ students, ofGym: isOfGym }) =>
    sql`student_id in ${students} or (student_id is null and ${isOfGym})`,
  note: ofStudentAndKept,
  field_test: ofStudentAndKept,
  hurt_note: ofStudent,
};
