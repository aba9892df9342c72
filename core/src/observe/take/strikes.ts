/**
 * The strikes in a long take, as proposals: where the picture moves much and, where there is sound,
 * where something is hit meanwhile. The coach confirms or refuses each.
 */
import type { Hit } from '../sound/onsets';
import { SPEED_OF_SOUND } from '../sound/sync';

export interface Activity {
  /** Real time of every frame, seconds. */
  readonly times: readonly number[];
  /** How much of the picture changed to reach this frame, per second. */
  readonly amounts: readonly number[];
}

export interface Candidate {
  /** Seconds: the stretch that belongs to this strike. */
  readonly from: number;
  readonly to: number;
  /** Where it was heard; null when only seen. */
  readonly contact: { readonly time: number; readonly sigma: number } | null;
  /** Strikes of one combination carry the same number, from 0. */
  readonly combination: number;
}

/** Movement is averaged over this long, seconds. */
const SMOOTH = 0.06;
/** A strike moves more than this share of what the take's strongest moments move. */
const LEAST = 0.18;
/** Two bursts of movement closer than this are the way out and the way home of one strike. */
const ONE_STRIKE = 0.35;
/** A hit belongs to a movement that ends or begins this near to it. */
const NEAR = 0.15;
/** Contacts closer than this belong to one combination. */
const COMBINATION = 1;
/** Before contact and after it, when only the sound tells where a strike begins and ends. */
const BEFORE = 0.7;
const AFTER = 0.6;

/**
 * @param hits heard in the take, real time
 * @param distance metres from the camera to the target, for the sound's delay; null when not known
 */
export function findStrikes(
  activity: Activity,
  hits: readonly Hit[],
  distance: number | null = null,
): Candidate[] {
  const bursts = burstsOf(activity);
  const heard = hits
    .map((hit) => seenTime(hit, distance))
    .filter(({ time }) => bursts.some(([from, to]) => time > from - NEAR && time < to + NEAR));
  const isHeard = ([from, to]: Span) =>
    heard.some(({ time }) => time > from - NEAR && time < to + NEAR);
  const start = activity.times[0] ?? 0;
  const end = activity.times[activity.times.length - 1] ?? 0;
  const all = [
    ...heard.map((contact, i) => ({
      from: Math.max(start, heard[i - 1]?.time ?? start, contact.time - BEFORE),
      to: Math.min(end, heard[i + 1]?.time ?? end, contact.time + AFTER),
      contact,
    })),
    ...bursts.filter((burst) => !isHeard(burst)).map(([from, to]) => ({ from, to, contact: null })),
  ].sort((a, b) => a.from - b.from);
  return numbered(all);
}

type Span = readonly [number, number];

/** Strikes land this near to the place whose distance is known, one standard deviation, metres. */
const LANDS_WITHIN = 0.3;

/**
 * The instant in the picture at which a heard hit happened. Of an unknown distance it is assumed
 * that the camera stood 2 to 8 m away.
 */
export function seenTime(
  hit: Pick<Hit, 'time' | 'sigma'>,
  distance: number | null,
): { time: number; sigma: number } {
  const metres = distance ?? 5;
  const sigma = distance === null ? 6 / Math.sqrt(12) : LANDS_WITHIN;
  return {
    time: hit.time - metres / SPEED_OF_SOUND,
    sigma: Math.hypot(hit.sigma, sigma / SPEED_OF_SOUND),
  };
}

function numbered(candidates: readonly Omit<Candidate, 'combination'>[]): Candidate[] {
  const middle = (one: Omit<Candidate, 'combination'>) =>
    one.contact?.time ?? (one.from + one.to) / 2;
  let combination = -1;
  return candidates.map((one, i) => {
    const before = candidates[i - 1];
    if (!before || middle(one) - middle(before) > COMBINATION) combination += 1;
    return { ...one, combination };
  });
}

/** Stretches in which the picture moves much; what changed to reach a frame did so since the one before. */
function burstsOf({ times, amounts }: Activity): Span[] {
  const smooth = smoothed(times, amounts);
  const sorted = [...smooth].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))] ?? 0;
  const [rest, most] = [at(0.2), at(0.99)];
  if (!(most > 2 * rest) || most <= 0) return [];
  const level = rest + LEAST * (most - rest);
  const spans: [number, number][] = [];
  smooth.forEach((value, i) => {
    if (value < level) return;
    const last = spans[spans.length - 1];
    if (last && times[i]! - last[1] < ONE_STRIKE) last[1] = times[i]!;
    else spans.push([times[Math.max(0, i - 1)]!, times[i]!]);
  });
  return spans.filter(([from, to]) => to - from > SMOOTH);
}

/**
 * How much changes around each frame, per second: of frames that stand for different times, as a busy recorder keeps
 * them, each counts for its own.
 */
function smoothed(times: readonly number[], amounts: readonly number[]): number[] {
  const lasts = (i: number) => times[i]! - times[Math.max(0, i - 1)]!;
  let [from, to, changed, time] = [0, 0, 0, 0];
  return times.map((middle) => {
    for (; to < times.length && times[to]! <= middle + SMOOTH / 2; to++) {
      changed += amounts[to]! * lasts(to);
      time += lasts(to);
    }
    for (; times[from]! < middle - SMOOTH / 2; from++) {
      changed -= amounts[from]! * lasts(from);
      time -= lasts(from);
    }
    return time > 0 ? changed / time : 0;
  });
}
