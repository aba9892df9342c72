/** What stands on the Floor: one row a student, with the one thing to do next. */
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import { awayInWords, daysBetween, type Day } from '@sinew/core/foundation/calendar/day';
import { faultById } from '@sinew/core/judge/fault/faults';
import { techniqueById, type Link } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { walkOrder } from '@sinew/core/train/work/plan';
import { checkOf } from '@sinew/core/train/work/prescription';
import type { Cue } from '@/data/finding/findings';
import { NOTHING, type FloorFacts } from '@/data/gym/floor';
import type { Student } from '@/data/student/students';

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
  readonly next: { readonly text: string; readonly note: string; readonly href: string };
  /** It waits for the coach today. */
  readonly isDue: boolean;
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
      const check = soonest(own, today);
      const isHurting = hurting.has(student.id);
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
        next: nextStep(student, own, ownCues, check, isHurting, today),
        isDue: isHurting || check?.isDue === true || own.open.length > 0 || !student.consent,
        benchHref: bench ? `/bench/${bench.id}` : null,
      };
      return {
        row,
        name: student.name,
        isHurting,
        checkIn: check?.isDue ? Math.min(0, check.days) : (check?.days ?? null),
        unmarked: own.open.length,
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

function soonest({ work }: FloorFacts, today: Day) {
  const checks = work
    .map((one) => ({ ...one, ...checkOf(one.nextCheck, one.sessions, today) }))
    .sort((a, b) => Number(b.isDue) - Number(a.isDue) || a.days - b.days);
  return checks[0] ?? null;
}

function nextStep(
  student: Student,
  { clips, open, work }: FloorFacts,
  cues: readonly Cue[],
  check: ReturnType<typeof soonest>,
  isHurting: boolean,
  today: Day,
): FloorRow['next'] {
  const page = `/students/${student.id}`;
  const film = `/capture?student=${student.id}`;
  if (isHurting && work.length > 0) {
    return {
      text: 'Slow only',
      note: 'something hurts or can: clear it first',
      href: `${page}/work`,
    };
  }
  if (!student.consent) {
    return {
      text: 'Ask for consent',
      note: student.isMinor ? 'a guardian’s, before filming' : 'before filming',
      href: page,
    };
  }
  const retest = check?.technique ? `${film}&technique=${check.technique}&retest=1` : film;
  if (check?.isDue && check.retest) {
    const { then, now, day } = check.retest;
    return {
      text: 'Did it change?',
      note: `filmed again ${awayInWords(day, today)}`,
      href: `/compare?a=${then}&b=${now}`,
    };
  }
  if (check?.isDue) {
    const note =
      check.because === 'sessions'
        ? 'worked three times'
        : `due ${awayInWords(check.nextCheck, today)}`;
    return { text: 'Film again', note, href: retest };
  }
  if (open.length > 0) {
    const task = open.every(({ isToConfirm }) => isToConfirm) ? 'Confirm' : 'Mark';
    return {
      text: open.length === 1 ? `${task} the clip` : `${task} ${open.length} clips`,
      note: `filmed ${VIEW_GUIDE[open[0]!.view].name.toLowerCase()}`,
      href: `/bench/${open[0]!.id}`,
    };
  }
  if (clips === 0) return { text: 'First film', note: 'stance first', href: film };
  if (work.length > 0) {
    const [first] = work;
    return {
      text: first!.name,
      note: check ? `film again ${awayInWords(check.nextCheck, today)}` : '',
      href: `${page}/work`,
    };
  }
  if (cues.length > 0)
    return { text: 'Give the work', note: 'a cue without a drill', href: `${page}/work` };
  return { text: 'Film again', note: 'no leak open', href: film };
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
