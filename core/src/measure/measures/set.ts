/**
 * Several strikes of one kind as one: the median of each reading, with what is known of that median,
 * and what only a set can show.
 */
import { median, deviation } from 'd3-array';
import {
  absent,
  isAbsent,
  reading,
  type Measured,
  type Reading,
} from '../../foundation/reading/reading';
import { perRound } from './beyond';
import { MEASURE_IDS, type Readings } from './allMeasures';

/** From so many strikes on, a set is judged; fewer give a provisional word. */
export const FEWEST = 3;

/**
 * σ of a median of n values that scatter normally by s is about 1.2533 s / √n (Kendall & Stuart,
 * The Advanced Theory of Statistics, vol. 1: √(π/2)).
 */
const OF_MEDIAN = Math.sqrt(Math.PI / 2);

/**
 * The median of some readings of one measure.
 *
 * Its σ joins how the strikes scatter with how well each is known. Errors of instants are each
 * frame's own and shrink with the number of strikes; those of lengths and angles may have one cause
 * (scale, target line, tracker) in all of them, and do not.
 *
 * @param values one or more, of one unit
 */
export function medianOf(values: readonly Reading[]): Measured {
  const first = values[0]!;
  const n = values.length;
  const middle = median(values, ({ value }) => value)!;
  const scatter = n > 1 ? (OF_MEDIAN * deviation(values, ({ value }) => value)!) / Math.sqrt(n) : 0;
  const known = median(values, ({ sigma }) => sigma)!;
  const shared = first.unit === 's' ? known / Math.sqrt(n) : known;
  const typical = [...values].sort(
    (a, b) => Math.abs(a.value - middle) - Math.abs(b.value - middle),
  )[0]!;
  const made = reading(
    middle,
    first.unit,
    Math.hypot(scatter, shared),
    typical.source,
    typical.frames,
  );
  const size = median(values, (one) => one.size ?? 1)!;
  return isAbsent(made) || size === 1 ? made : { ...made, size };
}

/**
 * Every reading as a set has it: the median where more than half of the strikes have it, else the
 * reason that most of them give.
 */
export function medianReadings(strikes: readonly Readings[]): Readings {
  return Object.fromEntries(
    MEASURE_IDS.map((id) => {
      const all = strikes.map((readings) => readings[id]);
      const known = all.filter((one): one is Reading => !isAbsent(one));
      return [id, 2 * known.length > all.length ? medianOf(known) : all.find(isAbsent)!];
    }),
  ) as unknown as Readings;
}

export const SET_NAMES = {
  'set.slowLead': 'Hips before trunk, slower half',
  'set.fastLead': 'Hips before trunk, faster half',
  'set.speedRange': 'Speed, faster half ÷ slower half',
  'set.rise': 'Hips come up from first to last',
} as const;
export type SetId = keyof typeof SET_NAMES;
export const SET_IDS = Object.keys(SET_NAMES) as SetId[];

/** With fewer strikes there is no slow and no fast half to speak of. */
const FEWEST_OF_HALVES = 4;

/** What only a set can show. @param strikes in the order in which they were thrown */
export function setReadings(strikes: readonly Readings[]): Readonly<Record<SetId, Measured>> {
  return { ...halves(strikes), 'set.rise': rise(strikes) };
}

function halves(strikes: readonly Readings[]): Record<Exclude<SetId, 'set.rise'>, Measured> {
  const all = (why: string) => {
    const none = absent(why);
    return { 'set.slowLead': none, 'set.fastLead': none, 'set.speedRange': none };
  };
  const known = strikes.flatMap((readings) => {
    const [speed, lead] = [readings['speed.contact'], readings['lead.hipsTrunk']];
    return isAbsent(speed) || isAbsent(lead) ? [] : [{ speed, lead }];
  });
  if (known.length < FEWEST_OF_HALVES) {
    return all(
      `${FEWEST_OF_HALVES} strikes at different speeds are needed, with their speed and the lead of the hips.`,
    );
  }
  known.sort((a, b) => a.speed.value - b.speed.value);
  const half = known.length >> 1;
  const [slow, fast] = [known.slice(0, half), known.slice(-half)];
  const [slowSpeed, fastSpeed] = [slow, fast].map((some) => medianOf(some.map((s) => s.speed)));
  if (isAbsent(slowSpeed!) || isAbsent(fastSpeed!)) return all('The speeds are not known.');
  const range = fastSpeed!.value / slowSpeed!.value;
  const sigma =
    range * Math.hypot(slowSpeed!.sigma / slowSpeed!.value, fastSpeed!.sigma / fastSpeed!.value);
  return {
    'set.slowLead': medianOf(slow.map(({ lead }) => lead)),
    'set.fastLead': medianOf(fast.map(({ lead }) => lead)),
    'set.speedRange': reading(range, 'ratio', sigma, fastSpeed!.source, fastSpeed!.frames),
  };
}

function rise(strikes: readonly Readings[]): Measured {
  const heights = strikes.map((readings) => readings['stance.height']);
  const known = heights.filter((one): one is Reading => !isAbsent(one));
  if (known.length < FEWEST) {
    return heights.find(isAbsent) ?? absent(`${FEWEST} strikes or more are needed.`);
  }
  const slope = perRound(known, 'm');
  if (isAbsent(slope)) return slope;
  const steps = known.length - 1;
  return {
    ...slope,
    value: slope.value * steps,
    sigma: slope.sigma * steps,
    source: known[0]!.source,
  };
}
