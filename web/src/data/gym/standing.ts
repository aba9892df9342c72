/** How things stand with a student, for the one next thing. */
import { nextThing, type NextThing, type Standing } from '@sinew/core/train/work/nextThing';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Db } from '../database/db';
import { activeCues, type Cue } from '../finding/findings';
import { hurtingStudents } from '../finding/studentFaults';
import type { Student } from '../student/students';
import { floorFacts, NOTHING, type FloorFacts } from './floor';

type OpenFilm = FloorFacts['open'][number];

export function standingOf(
  student: Student,
  { clips, open, undecided, work }: FloorFacts,
  cues: readonly Cue[],
  isHurting: boolean,
): Standing<OpenFilm> {
  return {
    hasConsent: student.consent !== null,
    isMinor: student.isMinor,
    isHurting,
    clips,
    open,
    undecided,
    work,
    hasIdleCue: cues.some(({ isWorked }) => !isWorked),
  };
}

/** The next thing for one student, as the Floor has it. */
export async function nextFor(db: Db, student: Student, today: Day): Promise<NextThing<OpenFilm>> {
  const [facts, cues, hurting] = await Promise.all([
    floorFacts(db, student.id),
    activeCues(db, student.id),
    hurtingStudents(db),
  ]);
  const own = facts.get(student.id) ?? NOTHING;
  return nextThing(standingOf(student, own, cues, hurting.has(student.id)), today);
}
