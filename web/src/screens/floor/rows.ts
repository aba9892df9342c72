/** What stands on the Floor: one row a student, with the one thing to do next. */
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import { awayInWords, daysBetween, type Day } from '@sinew/core/foundation/calendar/day';
import { faultById } from '@sinew/core/judge/fault/faults';
import { techniqueById, type Link } from '@sinew/core/foundation/technique/techniques';
import { nextThing, soonestCheck, waitsForCoach } from '@sinew/core/train/work/nextThing';
import { walkOrder } from '@sinew/core/train/work/plan';
import type { Cue } from '@/data/finding/findings';
import { NOTHING, type FloorFacts } from '@/data/gym/floor';
import type { Student } from '@/data/student/students';
import { standingOf } from '@/data/gym/standing';
import { stepOf, type NextStep } from '@/ui/nextStep';

export interface FloorRow {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly classGroup: string;
  readonly workingOn: string;
  readonly links: Partial<Record<Link, Verdict>>;
  readonly cues: readonly {
    readonly technique: string;
    readonly text: string;
    /** It can hurt the student: no power until it is cleared. */
    readonly isInjury: boolean;
  }[];
  readonly next: NextStep;
  /** It waits for the coach today. */
  readonly isDue: boolean;
  /** The newest film, for its picture; null where there is none to show. */
  readonly film: { readonly clipId: string; readonly time: number | null } | null;
  /** The bench B opens: the clip to mark, else the newest; null without clips. */
  readonly benchHref: string | null;
}

export interface FloorGiven {
  readonly students: readonly Student[];
  readonly facts: ReadonlyMap<string, FloorFacts>;
  readonly cues: readonly Cue[];
  /** Students of whom something that can hurt is not cleared. */
  readonly hurting: ReadonlySet<string>;
  readonly today: Day;
}

/** "4 months", "2 years", "new". */
export function trainingTime(startedOn: string | null, today: Day): string | null {
  if (startedOn === null) return null;
  const days = daysBetween(startedOn, today);
  if (days < 14) return 'new';
  if (days < 60) return `${Math.round(days / 7)} weeks`;
  if (days < 700) return `${Math.round(days / 30.4)} months`;
  return `${Math.floor(days / 365.25)} years`;
}

/** In the order in which the coach walks the floor. */
export function floorRows({ students, facts, cues, hurting, today }: FloorGiven): FloorRow[] {
  const cuesOf = new Map<string, Cue[]>();
  for (const cue of cues) cuesOf.set(cue.studentId, [...(cuesOf.get(cue.studentId) ?? []), cue]);
  const rows = students
    .filter((student) => !student.isArchived)
    .map((student) => {
      const own = facts.get(student.id) ?? NOTHING;
      const ownCues = cuesOf.get(student.id) ?? [];
      const isHurting = hurting.has(student.id);
      const next = nextThing(standingOf(student, own, ownCues, isHurting), today);
      const check = soonestCheck(own.work, today)?.check;
      const inHand = ownCues[0]?.technique ?? own.newest?.technique;
      const bench = own.open[0] ?? own.newest;
      const row: FloorRow = {
        id: student.id,
        name: student.name,
        about: [student.stance, trainingTime(student.startedOn, today), consentEnds(student, today)]
          .filter(Boolean)
          .join(', '),
        classGroup: student.classGroup,
        workingOn: inHand ? techniqueById(inHand).name : '',
        links: own.links,
        cues: ownCues.map((cue) => ({
          technique: techniqueById(cue.technique).name,
          text: cue.text,
          isInjury: faultById(cue.fault)?.injury === true,
        })),
        next: stepOf(next, student.id, today),
        isDue: isHurting || waitsForCoach(next),
        film:
          own.newest && !own.newest.isPurged
            ? { clipId: own.newest.id, time: own.newest.contactAt }
            : null,
        benchHref: bench ? `/bench/${bench.id}` : null,
      };
      return {
        row,
        name: student.name,
        isHurting,
        checkIn: check?.isDue ? Math.min(0, check.days) : (check?.days ?? null),
        unmarked: own.open.length + (own.undecided ? 1 : 0),
        hasWork: own.work.length > 0,
      };
    });
  return walkOrder(rows).map(({ row }) => row);
}

/** From so many days before it ends, a consent is spoken of. */
const WARNED = 14;

function consentEnds({ consent }: Student, today: Day): string | null {
  const ends = consent?.expiresOn;
  if (!ends || daysBetween(today, ends) > WARNED) return null;
  return `consent ends ${awayInWords(ends, today)}`;
}

/** "Six students, four clips to confirm, one to mark." */
export function floorHeadline(
  rows: readonly FloorRow[],
  facts: ReadonlyMap<string, FloorFacts>,
): string {
  const open = rows.flatMap(({ id }) => facts.get(id)?.open ?? []);
  const toConfirm = open.filter(({ isToConfirm }) => isToConfirm).length;
  const students = `${inWords(rows.length)} ${rows.length === 1 ? 'student' : 'students'}`;
  const work = waiting(toConfirm, open.length - toConfirm);
  const sentence = `${students}, ${work}.`;
  return sentence[0]!.toUpperCase() + sentence.slice(1);
}

/** Clips found and marked by Sinew, and those that nobody has marked. */
function waiting(toConfirm: number, toMark: number): string {
  const clips = (count: number) => `${inWords(count)} ${count === 1 ? 'clip' : 'clips'}`;
  if (toConfirm === 0) return toMark === 0 ? 'no clip waiting' : `${clips(toMark)} to mark`;
  const confirm = `${clips(toConfirm)} to confirm`;
  return toMark === 0 ? confirm : `${confirm}, ${inWords(toMark)} to mark`;
}

const WORDS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');
const inWords = (count: number) => WORDS[count] ?? String(count);
