/** The next thing for a student in words, and where it is done. */
import { awayInWords, type Day } from '@sinew/core/foundation/calendar/day';
import { techniqueById, type View } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import type { NextThing, OpenClip, WorkInHand } from '@sinew/core/train/work/nextThing';
import { checkOf } from '@sinew/core/train/work/prescription';
import { shortDay } from '@/manner/manner';

export interface NextStep {
  readonly text: string;
  readonly note: string;
  readonly href: string;
}

export function stepOf(
  next: NextThing<OpenClip & { readonly view: View }>,
  studentId: string,
  today: Day,
): NextStep {
  const page = `/students/${studentId}`;
  switch (next.kind) {
    case 'slow-only':
      return {
        text: 'Slow only',
        note: 'something hurts or can: clear it first',
        href: `${page}/work`,
      };
    case 'consent':
      return {
        text: 'Ask for consent',
        note: next.of === 'guardian' ? 'a guardian’s, before filming' : 'before filming',
        href: page,
      };
    case 'compare':
    case 'film-again':
      return checkStep(next.work, studentId, today);
    case 'confirm':
    case 'mark': {
      const task = next.kind === 'confirm' ? 'Confirm' : 'Mark';
      return {
        text: next.clips === 1 ? `${task} the clip` : `${task} ${next.clips} clips`,
        note: next.clip.isSearched
          ? 'the body is still being looked for'
          : `filmed ${VIEW_GUIDE[next.clip.view].name.toLowerCase()}`,
        href: `/bench/${next.clip.id}`,
      };
    }
    case 'decide': {
      const { leaks, technique, day, clipId, strikeId } = next.undecided;
      return {
        text: leaks === 1 ? 'Decide on the leak' : `Decide on ${leaks} leaks`,
        note: `${techniqueById(technique).name.toLowerCase()}, filmed ${awayInWords(day, today)}`,
        href: `/bench/${clipId}?strike=${strikeId}`,
      };
    }
    case 'give-work':
      return { text: 'Give the work', note: 'a cue without a drill', href: `${page}/work` };
    case 'work':
      return {
        text: next.work.name,
        note: `film again ${awayInWords(next.work.nextCheck, today)}`,
        href: `${page}/work`,
      };
    case 'first-film':
      return { text: 'First film', note: 'stance first', href: filming(studentId) };
    case 'another-film':
      return { text: 'Film again', note: 'no leak open', href: filming(studentId) };
  }
}

const filming = (studentId: string) => `/capture?student=${studentId}`;

/** When a piece of work is looked at again, or that it can be now; the same words on every screen. */
export function checkStep(
  { technique, nextCheck, sessions, retest }: WorkInHand,
  studentId: string,
  today: Day,
): NextStep {
  const check = checkOf(nextCheck, sessions, today);
  if (retest && check.isDue) {
    return {
      text: 'Did it change?',
      note: `filmed again ${awayInWords(retest.day, today)}`,
      href: `/compare?a=${retest.then}&b=${retest.now}`,
    };
  }
  const when = `${awayInWords(nextCheck, today)}, ${shortDay(nextCheck)}`;
  return {
    text: 'Film again',
    note:
      check.because === 'sessions'
        ? 'worked three times'
        : check.isDue
          ? `due ${awayInWords(nextCheck, today)}`
          : when,
    href: filming(studentId) + (technique ? `&technique=${technique}&retest=1` : ''),
  };
}
