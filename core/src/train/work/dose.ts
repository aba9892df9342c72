/** What a dose in the coach's own words asks of a counter: "3 × 10 slow", "20 each stance". */

export interface Dose {
  readonly sets: number;
  /** What is counted in a set. */
  readonly of: 'strikes' | 'seconds';
  /** In one set, one side. */
  readonly count: number;
  /** How often a set is done: once, or once a side or stance. */
  readonly sides: 1 | 2;
}

const NUMBER = String.raw`(\d+)(?:\s*[–-]\s*(\d+))?`;
const SETS = new RegExp(String.raw`^${NUMBER}\s*[×x]\s*${NUMBER}\s*(s\b|seconds?\b)?`, 'i');
const ROUNDS = new RegExp(String.raw`^${NUMBER}\s*rounds?(?:\s+of\s+(\d+)\s*(min|s)\b)?`, 'i');
const SECONDS = new RegExp(String.raw`^${NUMBER}\s*(s|seconds?|min|minutes?)\b`, 'i');
const PLACES = new RegExp(
  String.raw`^${NUMBER}\s+(?:distances|forms|speeds)\s*[×x]\s*${NUMBER}`,
  'i',
);
const PLAIN = new RegExp(String.raw`^(?:up to\s+)?${NUMBER}\b`, 'i');
const EACH = /\b(each|a|per|either|both)\s+(stance|side|leg|hand)s?\b/i;
const MINUTE = 60;
/** A round without a length is a usual one, seconds. */
const ROUND = 3 * MINUTE;

/**
 * Read a dose. Of a range the larger number is the goal.
 *
 * @returns null when nothing in it can be counted, as in "sets until form fades"
 */
export function doseOf(text: string): Dose | null {
  const dose = text.trim();
  const sides = EACH.test(dose) ? 2 : 1;
  const most = (a: string | undefined, b: string | undefined) => Number(b ?? a);
  const made = (sets: number, of: Dose['of'], count: number): Dose | null =>
    sets > 0 && count > 0 ? { sets, of, count, sides } : null;
  const places = PLACES.exec(dose);
  if (places) return made(most(places[1], places[2]), 'strikes', most(places[3], places[4]));
  const sets = SETS.exec(dose);
  if (sets) {
    const of = sets[5] ? 'seconds' : 'strikes';
    return made(most(sets[1], sets[2]), of, most(sets[3], sets[4]));
  }
  const rounds = ROUNDS.exec(dose);
  if (rounds) {
    const length = rounds[3] ? Number(rounds[3]) * (rounds[4] === 'min' ? MINUTE : 1) : ROUND;
    return made(most(rounds[1], rounds[2]), 'seconds', length);
  }
  const seconds = SECONDS.exec(dose);
  if (seconds) {
    const unit = seconds[3]!.startsWith('m') ? MINUTE : 1;
    return made(1, 'seconds', most(seconds[1], seconds[2]) * unit);
  }
  const plain = PLAIN.exec(dose);
  return plain ? made(1, 'strikes', most(plain[1], plain[2])) : null;
}

/** All of a dose: strikes or seconds over every set and side. */
export function wholeOf({ sets, count, sides }: Dose): number {
  return sets * count * sides;
}
