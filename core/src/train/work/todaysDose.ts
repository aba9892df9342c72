/**
 * How much of a dose is worked today: a new drill begins at a third of its dose and grows week by week,
 * and never so that the week's strikes grow by more than about a fifth.
 *
 * Source: Sinew's own, from the general principle of slow growth of volume.
 */
import type { Dose } from './dose';
import { GROWTH, type Volume } from './volume';

/** What stands in the place of a dose when the week has had enough. */
export const ENOUGH = 'enough for this week';

/** Weeks in which a new drill grows to its whole dose. */
const WEEKS = 3;
/** A set of fewer strikes is not worth beginning. */
const FEWEST = 3;

/**
 * @param dose as it was given
 * @param days since it was given
 * @returns the sets for today; null when the week has had enough
 */
export function todaysDose(dose: Dose, days: number, volume: Pick<Volume, 'all' | 'weeks'>) {
  const share = Math.min(1, (Math.floor(Math.max(0, days) / 7) + 1) / WEEKS);
  return scaled(dose, share, dose.of === 'strikes' ? roomLeft(volume) : Infinity);
}

/** Strikes that this week still has room for; without a week to hold it against, any. */
function roomLeft({ all, weeks }: Pick<Volume, 'all' | 'weeks'>): number {
  if (!all.usual) return Infinity;
  return Math.max(0, Math.floor(GROWTH * all.usual) - weeks[weeks.length - 1]!.strikes);
}

/** Whole sets first; where not even one has room, a shorter one. */
function scaled(dose: Dose, share: number, most: number): Dose | null {
  const one = dose.count * dose.sides;
  const sets = Math.min(Math.max(1, Math.round(dose.sets * share)), Math.floor(most / one));
  if (sets >= 1) return { ...dose, sets };
  const count = Math.floor(most / dose.sides);
  return count >= FEWEST ? { ...dose, sets: 1, count } : null;
}

/** "2 × 8 a side" */
export function inWords({ sets, of, count, sides }: Dose): string {
  return `${sets} × ${count}${of === 'seconds' ? ' s' : ''}${sides === 2 ? ' a side' : ''}`;
}
