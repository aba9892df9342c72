/** The one next thing for a student: worked out here, so that every screen tells the same story. */
import { daysBetween, type Day } from '../../foundation/calendar/day';
import { checkOf, type Check } from './prescription';

/** A later film that answers whether work has changed anything. */
export interface Answer {
  /** Strikes: the one that showed the fault, and the newest of its kind. */
  readonly then: string;
  readonly now: string;
  readonly day: Day;
}

export interface WorkInHand {
  readonly name: string;
  readonly technique: string | null;
  readonly nextCheck: Day;
  /** Days on which it was worked since it was given. */
  readonly sessions: number;
  readonly retest: Answer | null;
}

/** A film nobody has gone through. */
export interface OpenClip {
  readonly id: string;
  readonly view: string;
  /** Its strikes were found and marked by Sinew. */
  readonly isToConfirm: boolean;
  /** Its body is still being looked for. */
  readonly isSearched: boolean;
}

/** Leaks of the newest film on which the coach has not said a word. */
export interface Undecided {
  readonly clipId: string;
  readonly strikeId: string;
  readonly technique: string;
  readonly leaks: number;
  readonly day: Day;
}

/** How things stand with one student. */
export interface Standing<Clip extends OpenClip = OpenClip> {
  readonly hasConsent: boolean;
  readonly isMinor: boolean;
  /** Something hurts, or a leak that can hurt is not cleared. */
  readonly isHurting: boolean;
  readonly clips: number;
  /** Newest first. */
  readonly open: readonly Clip[];
  readonly undecided: Undecided | null;
  readonly work: readonly WorkInHand[];
  /** A cue for which no work has been given. */
  readonly hasIdleCue: boolean;
}

export type NextThing<Clip extends OpenClip = OpenClip> =
  /** Nothing but slow work until what hurts is cleared. */
  | { readonly kind: 'slow-only' }
  | { readonly kind: 'consent'; readonly of: 'guardian' | 'student' }
  /** Filmed again: did it change? */
  | { readonly kind: 'compare'; readonly work: WorkInHand; readonly answer: Answer }
  | { readonly kind: 'film-again'; readonly work: WorkInHand; readonly check: Check }
  | { readonly kind: 'confirm' | 'mark'; readonly clip: Clip; readonly clips: number }
  | { readonly kind: 'decide'; readonly undecided: Undecided }
  | { readonly kind: 'give-work' }
  | { readonly kind: 'work'; readonly work: WorkInHand; readonly check: Check }
  | { readonly kind: 'first-film' }
  /** No leak is open: another film would show one. */
  | { readonly kind: 'another-film' };

/**
 * What can hurt goes first, then consent, then a film that is due or has come, then films nobody has
 * gone through, then what was found in them, then work.
 */
export function nextThing<Clip extends OpenClip>(
  standing: Standing<Clip>,
  today: Day,
): NextThing<Clip> {
  const { open, undecided, work } = standing;
  if (standing.isHurting && work.length > 0) return { kind: 'slow-only' };
  if (!standing.hasConsent) {
    return { kind: 'consent', of: standing.isMinor ? 'guardian' : 'student' };
  }
  const soonest = soonestCheck(work, today);
  if (soonest?.check.isDue) {
    return soonest.work.retest
      ? { kind: 'compare', work: soonest.work, answer: soonest.work.retest }
      : { kind: 'film-again', ...soonest };
  }
  if (open[0]) {
    const kind = open.every(({ isToConfirm }) => isToConfirm) ? 'confirm' : 'mark';
    return { kind, clip: open[0], clips: open.length };
  }
  if (standing.clips === 0) return { kind: 'first-film' };
  if (undecided) return { kind: 'decide', undecided };
  if (standing.hasIdleCue) return { kind: 'give-work' };
  if (soonest) return { kind: 'work', ...soonest };
  return { kind: 'another-film' };
}

/** The work that is looked at again first: what is due before all, a day on which it was before. */
export function soonestCheck(
  work: readonly WorkInHand[],
  today: Day,
): { readonly work: WorkInHand; readonly check: Check } | null {
  const [first] = work
    .map((one) => ({ work: one, check: checkOf(one.nextCheck, one.sessions, today) }))
    .sort(
      (a, b) =>
        Number(b.check.isDue) - Number(a.check.isDue) ||
        daysBetween(b.work.nextCheck, a.work.nextCheck),
    );
  return first ?? null;
}

/** It waits for the coach today; the rest goes on without. */
export const waitsForCoach = ({ kind }: NextThing): boolean =>
  kind !== 'work' && kind !== 'first-film' && kind !== 'another-film';
