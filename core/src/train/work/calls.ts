/** Combinations called in a round: numbers as the gym says them, the same again after a reload. */
import { seeded } from '../../foundation/uncertainty/random';
import { techniqueById } from '../../foundation/technique/techniques';

/** The gym's numbers for punches. Common practice, no source. */
export const NUMBERED: Readonly<Record<string, string>> = {
  1: 'jab',
  2: 'cross',
  3: 'lead-hook',
  4: 'rear-hook',
  5: 'lead-uppercut',
  6: 'rear-uppercut',
};

export const COMBINATIONS: readonly string[] = [
  '1-2',
  '1-1-2',
  '1-2-3',
  '2-3',
  '2-3-2',
  '1-2-5',
  '1-6',
  '1-6-3',
  '5-2',
  '3-2-3',
  '1-2-3-2',
  '1-4',
];

/**
 * @returns the punches of a combination such as "1-2-3"
 * @throws RangeError naming the number that is none
 */
export function punchesOf(combination: string): string[] {
  return combination.split('-').map((number) => {
    const punch = NUMBERED[number.trim()];
    if (!punch) throw new RangeError(`${number || 'nothing'} is no punch: 1 to 6 are.`);
    return punch;
  });
}

/** "jab, cross, lead hook". */
export function spoken(combination: string): string {
  return punchesOf(combination)
    .map((id) => techniqueById(id).name.toLowerCase())
    .join(', ');
}

export interface Call {
  /** Seconds into the round. */
  readonly at: number;
  readonly combination: string;
}

/** The first call comes when the bell has died away. */
const FIRST = 3;
/** No call in the last seconds: it could not be answered. */
const LAST = 4;

/**
 * What is called in a round, spread by up to a third around the pace.
 *
 * @param seconds length of the round
 * @param pace seconds from call to call
 * @param seed the same seed calls the same
 */
export function callsIn(
  seconds: number,
  pace: number,
  combinations: readonly string[],
  seed: number,
): Call[] {
  if (combinations.length === 0 || !(pace > 0)) return [];
  const random = seeded(seed);
  const calls: Call[] = [];
  for (let at = FIRST; at <= seconds - LAST; at += pace * (2 / 3 + (2 / 3) * random())) {
    const combination = combinations[Math.floor(random() * combinations.length)]!;
    calls.push({ at, combination });
  }
  return calls;
}
