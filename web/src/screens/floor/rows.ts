/** What stands on the Floor: one row a student, with the one thing to do next. */
import { EVENTS } from '@sinew/core/events/events';
import { faultById } from '@sinew/core/fault/catalogue';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { VIEW_GUIDE } from '@sinew/core/technique/views';
import type { ClipSummary } from '@/data/clips';
import type { Cue } from '@/data/findings';
import type { Student } from '@/data/students';

export interface FloorRow {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly workingOn: string;
  readonly cues: readonly {
    readonly technique: string;
    readonly text: string;
    /** It can hurt the student: no power until it is cleared. */
    readonly isInjury: boolean;
  }[];
  readonly next: { readonly text: string; readonly note: string; readonly href: string };
  /** The bench B opens: the clip to mark, else the newest; null without clips. */
  readonly benchHref: string | null;
}

const DAY = 86_400_000;

/** "4 months", "2 years", "new". */
export function trainingTime(startedOn: string | null, today: Date): string | null {
  if (startedOn === null) return null;
  const days = (today.getTime() - Date.parse(startedOn)) / DAY;
  if (days < 14) return 'new';
  if (days < 60) return `${Math.round(days / 7)} weeks`;
  if (days < 700) return `${Math.round(days / 30.4)} months`;
  return `${Math.floor(days / 365.25)} years`;
}

/**
 * A clip is open work until one of its strikes has been marked from ready to home, or was found in it
 * together with the body and confirmed.
 */
const isUnmarked = ({ strikes, isTracked }: ClipSummary) =>
  !strikes.some((strike) => strike.marks >= EVENTS.length || (isTracked && !strike.isAutomatic));

const isToConfirm = ({ strikes }: ClipSummary) => strikes.some((strike) => strike.isAutomatic);

export function floorRows(
  students: readonly Student[],
  clips: readonly ClipSummary[],
  cues: readonly Cue[],
  today: Date,
): FloorRow[] {
  return students
    .filter((student) => !student.isArchived)
    .map((student) => {
      const own = clips.filter((clip) => clip.studentId === student.id);
      const ownCues = cues.filter((cue) => cue.studentId === student.id);
      const unmarked = own.filter(isUnmarked);
      const bench = unmarked[0] ?? own[0];
      const inHand = ownCues[0]?.technique ?? own.flatMap((clip) => clip.strikes)[0]?.technique;
      return {
        id: student.id,
        name: student.name,
        about: [student.stance, trainingTime(student.startedOn, today)].filter(Boolean).join(', '),
        workingOn: inHand ? techniqueById(inHand).name : '',
        cues: ownCues.map((cue) => ({
          technique: techniqueById(cue.technique).name,
          text: cue.text,
          isInjury: faultById(cue.fault)?.injury === true,
        })),
        next: nextStep(student, own.length, unmarked, ownCues.length),
        benchHref: bench ? `/bench/${bench.id}` : null,
      };
    });
}

function nextStep(
  student: Student,
  clipCount: number,
  unmarked: readonly ClipSummary[],
  cueCount: number,
): FloorRow['next'] {
  const page = `/students/${student.id}`;
  const film = `/capture?student=${student.id}`;
  if (!student.consent) {
    return {
      text: 'Ask for consent',
      note: student.isMinor ? 'a guardian’s, before filming' : 'before filming',
      href: page,
    };
  }
  if (unmarked.length > 0) {
    const task = unmarked.every(isToConfirm) ? 'Confirm' : 'Mark';
    return {
      text: unmarked.length === 1 ? `${task} the clip` : `${task} ${unmarked.length} clips`,
      note: `filmed ${VIEW_GUIDE[unmarked[0]!.view].name.toLowerCase()}`,
      href: `/bench/${unmarked[0]!.id}`,
    };
  }
  if (clipCount === 0) return { text: 'First film', note: 'stance first', href: film };
  if (cueCount === 0) return { text: 'Film again', note: 'no leak open', href: film };
  return { text: 'Film again', note: 'does it show?', href: film };
}

/** "Six students, two clips to mark." */
export function floorHeadline(rows: readonly FloorRow[], clips: readonly ClipSummary[]): string {
  const ids = new Set(rows.map((row) => row.id));
  const open = clips.filter((clip) => ids.has(clip.studentId) && isUnmarked(clip)).length;
  const students = `${inWords(rows.length)} ${rows.length === 1 ? 'student' : 'students'}`;
  const work =
    open === 0 ? 'no clip waiting' : `${inWords(open)} ${open === 1 ? 'clip' : 'clips'} to mark`;
  const sentence = `${students}, ${work}.`;
  return sentence[0]!.toUpperCase() + sentence.slice(1);
}

const WORDS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');
const inWords = (count: number) => WORDS[count] ?? String(count);
