/** Then and now: is it better, worse, or no change anybody can claim? */
import { group } from 'd3-array';
import type { Rules } from '../../judge/fault/finding';
import { isOfReading } from '../../judge/fault/schema';
import { isInForce } from '../../judge/school/resolve';
import type { MeasureId } from '../../measure/measures/allMeasures';
import {
  isAbsent,
  type Measured,
  type Reading,
  type Source,
} from '../../foundation/reading/reading';
import type { Intent } from '../../foundation/drill/intent';

/** By what it is said which way is better. */
export type Judging = Pick<Rules, 'catalogue' | 'school'>;

/** Which way a reading is to go; null where nobody says. */
export type Wanted = 'more' | 'less' | 'nearer-zero' | null;

/** More is better of these, whatever the faults say. */
const MORE: readonly string[] = ['speed.contact', 'speed.peak', 'momentum'];

/** From the limits of the faults that a technique can have in the school that is in force. */
export function wantedOf(id: MeasureId, technique: string, judging: Judging): Wanted {
  return wantedIn(technique, judging)(id);
}

/** The same of many readings: the catalogue is gone through once. */
export function wantedIn(
  technique: string,
  { catalogue, school }: Judging,
): (id: MeasureId) => Wanted {
  const limits = catalogue.faults
    .filter(({ techniques }) => techniques.includes(technique))
    .flatMap(({ cases }) => cases)
    .filter((one) => !one.techniques || one.techniques.includes(technique))
    .filter(({ when }) => isInForce(when, school))
    .flatMap((one) => one.limits)
    .filter(isOfReading);
  const waysOf = group(limits, ({ reading }) => reading);
  return (id) => {
    if (MORE.includes(id)) return 'more';
    const ways = new Set((waysOf.get(id) ?? []).map(({ is }) => is));
    // A reading with limits on both sides has a middle that is right, and no better way.
    if (ways.size !== 1) return null;
    const [is] = ways;
    return is === 'below' ? 'more' : is === 'above' ? 'less' : 'nearer-zero';
  };
}

/** How something was filmed and meant: what must be alike for two of it to be compared. */
export interface Circumstances {
  readonly technique: string;
  readonly side: string;
  readonly view: string;
  /** Null when nobody has said. */
  readonly intent: Intent | null;
}

const SPATIAL: readonly Source[] = ['measured-3d'];

/**
 * @param sources of the readings held against each other: what is measured in space is so from
 *   every side
 * @returns why the two must not be compared, or null
 */
export function notComparable(
  a: Circumstances,
  b: Circumstances,
  sources: readonly Source[] = [],
): string | null {
  if (a.technique !== b.technique) return 'they are different strikes';
  if (a.side !== b.side) return 'one is of the left, one of the right side';
  const isSpatial = sources.length > 0 && sources.every((source) => SPATIAL.includes(source));
  if (a.view !== b.view && !isSpatial) {
    return `one was filmed ${viewWords(a.view)}, one ${viewWords(b.view)}`;
  }
  if (a.intent !== b.intent) {
    return a.intent && b.intent
      ? `one was meant ${a.intent}, one ${b.intent}`
      : 'how hard it was meant is said of one only';
  }
  return null;
}

const viewWords = (view: string) =>
  (view === 'above' ? 'from above' : `from the ${view}`)
    .replace('the behind', 'behind')
    .replace('the front', 'the front');

/** `few`: these strikes differ, but one or two never show that something has changed. */
export type Verdict = 'better' | 'worse' | 'changed' | 'noise' | 'few';

/** Strikes on each side from which a change can be claimed. */
export const FEWEST_COMPARED = 3;

export type Change =
  | {
      readonly verdict: Verdict;
      /** Now minus then, in the readings' unit. */
      readonly difference: number;
      /** A difference up to this is noise. */
      readonly noise: number;
    }
  | { readonly notComparable: string };

/**
 * Between sets of three or more, whose σ holds how strikes scatter: a change counts when it is larger than what two honest measurements differ by: 1.96 √(σ₁² + σ₂²),
 * each σ no smaller than the typical error of marking where that is known (Hopkins 2000: the
 * smallest change that counts is 1.96 √2 typical errors).
 *
 * @param typicalError of single strikes, in the readings' unit; null when nobody has measured it
 * @param strikes how many strikes then and now rest on; with fewer than three on a side nothing is claimed
 */
export function changeBetween(
  then: Measured,
  now: Measured,
  wanted: Wanted,
  {
    typicalError = null,
    strikes = [1, 1],
  }: {
    readonly typicalError?: number | null;
    readonly strikes?: readonly [number, number];
  } = {},
): Change {
  if (isAbsent(then)) return { notComparable: `then: ${lower(then.absent)}` };
  if (isAbsent(now)) return { notComparable: `now: ${lower(now.absent)}` };
  if (then.unit !== now.unit) return { notComparable: 'they are in different units' };
  const sigma = (one: Reading, n: number) =>
    Math.max(one.sigma, (typicalError ?? 0) / Math.sqrt(n));
  const difference = now.value - then.value;
  const noise = 1.96 * Math.hypot(sigma(then, strikes[0]), sigma(now, strikes[1]));
  const gain = {
    more: difference,
    less: -difference,
    'nearer-zero': Math.abs(then.value) - Math.abs(now.value),
  };
  if (Math.abs(difference) <= noise) return { verdict: 'noise', difference, noise };
  if (Math.min(...strikes) < FEWEST_COMPARED) return { verdict: 'few', difference, noise };
  if (wanted === null) return { verdict: 'changed', difference, noise };
  return { verdict: gain[wanted] > 0 ? 'better' : 'worse', difference, noise };
}

const lower = (sentence: string) =>
  (sentence[0]?.toLowerCase() ?? '') + sentence.slice(1).replace(/\.$/, '');
