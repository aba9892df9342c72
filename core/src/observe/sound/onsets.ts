/**
 * What a recording tells of a strike: the sharp sound of a hit, and the breath that is let out.
 *
 * A hit is a rise of loudness within a few milliseconds, far above what came just before; its
 * instant is where the rise has covered half its way in decibels. A breath is a hiss that swells
 * and fades over a tenth of a second or more. (Energy-based onset detection; Bello et al., IEEE
 * Trans. Speech Audio Process. 13 (2005) 1035–1047. The limits are common practice, no source.)
 */
import { HOP, type Envelope } from './envelope';
import { quantile } from 'd3-array';

export interface Hit {
  /** Seconds of the film, as heard. */
  readonly time: number;
  /** Standard deviation, seconds. */
  readonly sigma: number;
  /** How far it stands out of what came before, decibels. */
  readonly rise: number;
  /** Loudness at its height, in the envelope's own unit. */
  readonly loudness: number;
}

export interface Breath {
  /** Seconds of the film. */
  readonly from: number;
  readonly to: number;
}

const hops = (seconds: number) => Math.round(seconds / HOP);

/** A hit rises by at least this much … */
const LEAST_RISE = 12;
/** … and stands out of the whole recording's quiet by this much, decibels. */
const LEAST_OVER_QUIET = 20;
/** A hit is at its loudest within this time of its start, and nothing counts twice within REST. */
const ATTACK = hops(0.004);
const BEFORE = hops(0.02);
const REST = hops(0.09);

const decibels = (value: number) => 20 * Math.log10(value);

/** A third of a step of 16 bits: no room is so quiet, it is what a recording left out. */
const LEFT_OUT = 1e-5;

/** How loud the recording is when nothing happens; never 0. What was left out does not count, unless it is most. */
export function quietOf({ loudness }: Envelope): number {
  const step = Math.max(1, Math.floor(loudness.length / 4000));
  const some = Array.from(loudness).filter((_, i) => i % step === 0);
  const recorded = some.filter((one) => one > LEFT_OUT);
  const counting = recorded.length > some.length / 2 ? recorded : some;
  return Math.max(quantile(counting, 0.2) ?? 0, 1e-6);
}

/**
 * Hits in order of time.
 *
 * @param quiet how loud the room is when nothing happens, where it has been listened to for longer
 */
export function findHits(envelope: Envelope, quiet = quietOf(envelope)): Hit[] {
  const { loudness } = envelope;
  const before = runningMean(loudness, BEFORE);
  const hits: Hit[] = [];
  let free = 0;
  for (let i = BEFORE; i + ATTACK < loudness.length; i++) {
    if (i < free) continue;
    const base = Math.max(before[i]!, quiet);
    if (loudness[i]! < 2 * base) continue;
    const peak = peakFrom(loudness, i);
    const rise = decibels(peak / base);
    if (rise < LEAST_RISE || decibels(peak / quiet) < LEAST_OVER_QUIET) continue;
    hits.push({ ...instant(envelope, i, base, peak), rise, loudness: peak });
    free = i + REST;
  }
  return hits;
}

/** Mean of the `width` values that end before each index. */
function runningMean(values: Float32Array, width: number): Float32Array {
  const means = new Float32Array(values.length);
  let sum = 0;
  for (let i = 0; i < values.length; i++) {
    means[i] = sum / Math.min(width, Math.max(1, i));
    sum += values[i]! - (i >= width ? values[i - width]! : 0);
  }
  return means;
}

function peakFrom(values: Float32Array, from: number): number {
  let peak = 0;
  for (let k = from; k <= from + ATTACK; k++) peak = Math.max(peak, values[k]!);
  return peak;
}

/** Where the rise from `base` to `peak` crosses its middle, and how sharply it does. */
function instant(
  { loudness, start }: Envelope,
  from: number,
  base: number,
  peak: number,
): Pick<Hit, 'time' | 'sigma'> {
  const crossing = (share: number): number => {
    const level = decibels(base) + share * decibels(peak / base);
    let i = Math.max(1, from - ATTACK);
    while (i < from + ATTACK && decibels(loudness[i]! || 1e-9) < level) i += 1;
    const [a, b] = [decibels(loudness[i - 1]! || 1e-9), decibels(loudness[i]! || 1e-9)];
    // A value stands for its whole hop, so the middle of the hop.
    return (i - 1 + (b > a ? Math.min(1, Math.max(0, (level - a) / (b - a))) : 1) + 0.5) * HOP;
  };
  const width = Math.max(HOP, crossing(0.8) - crossing(0.2));
  // Anywhere within the rise, and anywhere within a hop.
  return { time: start + crossing(0.5), sigma: Math.hypot(width, HOP) / Math.sqrt(12) };
}

/** A breath is this long, seconds, this far over the quiet, and hisses: its sign changes this often. */
const SHORTEST = 0.08;
const LONGEST = 0.8;
const BREATH_OVER_QUIET = 6;
const HISS = 4000;
const BLOCK = hops(0.01);
/** After a hit the room still rings. */
const RING = 0.12;

/** Breaths in order of time; what a hit drowns does not count. */
export function findBreaths(envelope: Envelope, hits: readonly Hit[]): Breath[] {
  const quiet = quietOf(envelope);
  const { loudness, crossings, start } = envelope;
  const count = Math.floor(loudness.length / BLOCK);
  const breaths: Breath[] = [];
  let from: number | null = null;
  let peak = 0;
  const timeOf = (block: number) => start + block * BLOCK * HOP;
  const close = (to: number, isCut: boolean) => {
    if (from !== null) {
      const length = timeOf(to) - timeOf(from);
      const isSwell = isCut || decibels(peak / quiet) > BREATH_OVER_QUIET;
      if (length >= SHORTEST && length <= LONGEST && isSwell) {
        breaths.push({ from: timeOf(from), to: timeOf(to) });
      }
    }
    from = null;
    peak = 0;
  };
  for (let block = 0; block < count; block++) {
    const [loud, hiss] = [meanOf(loudness, block), meanOf(crossings, block)];
    const time = timeOf(block);
    const isRinging = hits.some((hit) => time > hit.time - BLOCK * HOP && time < hit.time + RING);
    if (isRinging) close(block, true);
    else if (decibels(loud / quiet) > BREATH_OVER_QUIET && hiss > HISS) {
      from ??= block;
      peak = Math.max(peak, loud);
    } else close(block, false);
  }
  close(count, false);
  return breaths;
}

function meanOf(values: Float32Array, block: number): number {
  let sum = 0;
  for (let i = block * BLOCK; i < (block + 1) * BLOCK; i++) sum += values[i]!;
  return sum / BLOCK;
}
