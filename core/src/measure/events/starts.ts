/**
 * Starts of hips, trunk and arm (pelvis, thigh and shank in a kick), and of the load before them,
 * read off a dense track once contact is known.
 */
import { median } from 'd3-array';
import { hangsOf, type Motion, type Path } from '../../reconstruct/motion/motion';
import { hipsAlong, startsOf, turnOf, type Series } from '../../reconstruct/motion/speeds';
import { lowpass } from '../../foundation/signal/butterworth';
import { lowerBound } from '../../foundation/signal/interpolate';
import { noiseSigma } from '../../foundation/signal/noise';
import { resampleEvenly } from '../../foundation/signal/resample';
import type { Technique } from '../../foundation/technique/techniques';
import { markAt, type EventMark, type Events } from './events';
import { changePoint, type Rise } from './changePoint';
import { onset } from './onset';
import { speedOf, type Speed } from './linkSpeed';

export function proposeStarts(motion: Motion, technique: Technique, contact: EventMark): Events {
  const { hips, trunk, arm } = startsOf(motion, technique, contact.time, 'raw');
  const strays = isSeenByTracker(motion) ? TRACKED_START : 0;
  const linkStart = (series: Series | null, doubt: number) =>
    startOf(series, motion, contact.time, { doubt, isAlone: true });
  return {
    ...named('hips', linkStart(hips, pelvisDoubt(motion, technique))),
    ...named('trunk', linkStart(trunk, strays)),
    ...named('arm', linkStart(arm, Math.hypot(arm?.strays ?? 0, strays))),
  };
}

/** Bands are cloth: a start read off one strays by this, seconds, on simulated torsos, */
const BAND_SLIPS = 0.004;
/**
 * and where it is not known what is worn by so much for each radian that its turn is off: by rows of tape starts are
 * 6 to 20 ms off, on twenty simulated torsos and twelve rendered films.
 */
const SLIPS_A_RADIAN = 0.055;

function slipOf(path: Path | undefined): number {
  const off = Math.SQRT2 * (median(path?.bias ?? []) ?? 0);
  return Math.max(BAND_SLIPS, SLIPS_A_RADIAN * off);
}

/** A start is not believed when the band was hidden closer to it than this, seconds: by an arm that begins to move. */
const SEEN_AROUND = 0.08;

function isSeenAround(time: number, { times }: Series): boolean {
  const spacing = (times[times.length - 1]! - times[0]!) / (times.length - 1);
  if (!(times[0]! <= time - SEEN_AROUND)) return false;
  return times.every((one, i) => {
    const next = times[i + 1];
    if (next === undefined) return one >= time + SEEN_AROUND;
    const isAround = next > time - SEEN_AROUND && one < time + SEEN_AROUND;
    return !isAround || next - one < 3 * spacing;
  });
}

/** Starts as worn bands tell them: of the links that turn. */
export function turnStarts(motion: Motion, technique: Technique, contact: EventMark): Events {
  const start = (link: 'pelvis' | 'trunk') => {
    const series = turnOf(motion, link, 'raw');
    const doubt = slipOf(motion.raw[link === 'pelvis' ? 'leftHip' : 'leftShoulder']);
    const mark = startOf(series, motion, contact.time, { doubt, isAlone: true });
    return mark && isSeenAround(mark.time, series!) ? mark : null;
  };
  const hips = technique.start === 'turn' ? start('pelvis') : null;
  const trunk = technique.family === 'kick' ? null : start('trunk');
  return { ...named('hips', hips), ...named('trunk', trunk) };
}

/**
 * A body tracker sees a pelvis turn by its thighs and its clothes, and so 10 to 60 ms late, two films
 * or one (docs/accuracy.md); seconds.
 */
const TRACKED_PELVIS = 0.045;

/** How far other starts stray that are read off a tracked body; seconds, on the same. */
const TRACKED_START = 0.015;

const isSeenByTracker = ({ raw }: Motion) => raw.leftHip?.isTracked === true;

function pelvisDoubt(motion: Motion, { start }: Technique): number {
  if (!isSeenByTracker(motion)) return 0;
  return start === 'turn' ? TRACKED_PELVIS : TRACKED_START;
}

/** Smoothing by somebody else moves the foot of a rise by about this, seconds (a low-pass of 6 to 10 Hz). */
export const SMOOTHED_START = 0.012;

/**
 * A rise is followed until it has this share of the peak speed: the farther, the more points there are, and the
 * more of them tell of another stage of it. With noise of so many times its share of the peak, as far as may be.
 */
const UNDER_WAY = { least: 0.3, most: 0.6, forNoise: 6 };
/**
 * Seconds before the first guess that are looked at, and that the change point may lie before it. Noise lifts the
 * guess: with half as much, links came out 3 to 10 ms late in noise of 2 to 3 mm, on made-up strikes of two
 * generators. Where a body creeps before it goes, as in its load, more than that takes the creep for the start.
 */
const LOOKS_BACK = {
  link: { rest: 0.22, earlier: 0.15 },
  creeping: { rest: 0.15, earlier: 0.08 },
} as const;
/** Seconds that the change point may lie behind the first guess. */
const LATER = 0.05;
/** A turn back is one when it is this share of the peak speed, and so many σ. */
const BACK = { share: 0.05, sigmas: 3 };
/** No series is exact: a share of the way that a rise goes. */
const LEAST_NOISE = 1e-4;

interface StartOptions {
  /** Seconds, one standard deviation, added in quadrature. */
  readonly doubt?: number;
  /** Whether it must be the only rise that is so high. */
  readonly isAlone?: boolean;
  readonly of?: keyof typeof LOOKS_BACK;
}

/**
 * When a link starts: where its smoothed speed says, made exact by `changePoint`.
 *
 * @param until seconds
 */
export function startOf(
  series: Series | null,
  motion: Motion,
  until: number,
  { doubt = 0, isAlone = false, of = 'link' }: StartOptions = {},
): EventMark | null {
  const hangs = hangsOf(motion);
  const speed = speedOf(series, until, hangs);
  if (!series || !speed) return null;
  const about = onset(speed.times, speed.values, until, speed.noise, isAlone);
  const rise = about === null ? null : riseAround(about, series, speed, hangs, LOOKS_BACK[of]);
  const found = rise && changePoint(rise);
  if (!found) return null;
  const smoothed = motion.isSmoothed ? SMOOTHED_START : 0;
  return markAt(
    motion.frameTimes,
    found.time,
    Math.hypot(found.sigma, smoothed, doubt),
    motion.source,
  );
}

/** The stretch of a series that a rise is read off. */
function riseAround(
  about: number,
  series: Series,
  speed: Speed,
  hangs: number,
  { rest, earlier }: { readonly rest: number; readonly earlier: number },
): Rise | null {
  const { times, values, noise } = speed;
  const spacing = times[1]! - times[0]!;
  let peak = 0;
  values.forEach((value, i) => (peak = value > values[peak]! ? i : peak));
  const { least: near, most: far, forNoise } = UNDER_WAY;
  const share = Math.min(far, near + (forNoise * noise) / values[peak]!);
  let last = lowerBound(times, about);
  while (last < peak && values[last]! < share * values[peak]!) last += 1;
  // The fastest of a turn back, where there is one.
  let first = lowerBound(times, about - rest);
  let fastest = first;
  for (let i = first; times[i]! < about; i++) if (values[i]! < values[fastest]!) fastest = i;
  const least = Math.max(BACK.sigmas * noise, BACK.share * values[peak]!);
  if (values[fastest]! < -least) first = fastest;
  const [from, to] = [times[first]!, times[last]!];
  const [begin, end] = [lowerBound(series.times, from - 1e-9), lowerBound(series.times, to + 1e-9)];
  const sigma = noiseSigma(series, spacing, hangs);
  if (sigma === null || end - begin < 6) return null;
  return {
    times: series.times.slice(begin, end),
    values: series.values.slice(begin, end),
    sigma: Math.max(sigma, LEAST_NOISE * (values[peak]! * (to - from))),
    hangs,
    peak: values[peak]!,
    reached: values[last]!,
    speedSigma: noise,
    from: Math.max(from + 2 * spacing, about - earlier),
    to: Math.min(to - 2 * spacing, about + LATER),
  };
}

/** How long before the hips the load is looked for, seconds. */
const LONGEST_LOAD = 0.6;
/** Less than this is no load but a body standing still, metres and radians. */
const LEAST = { m: 0.006, rad: 0.035 };

/**
 * A picture shows the sink or the turn back, not both, and the other may have begun before; seconds, on
 * made-up strikes.
 */
const HALF_SEEN = 0.012;
/** The same where a body tracker sees it: in 22 rendered films of one phone 20 ms late in the middle, up to 80. */
const HALF_TRACKED = 0.03;

/** First departure before the hips: the pelvis sinks, or pelvis or trunk turn the other way. */
export function proposeLoad(motion: Motion, hips: EventMark): EventMark | null {
  const back = (series: Series | null): Series | null =>
    series && { ...series, values: series.values.map((value) => -value) };
  const candidates = [
    hipsAlong(motion, 'up', -1, 'raw'),
    back(turnOf(motion, 'trunk', 'raw')),
    back(turnOf(motion, 'pelvis', 'raw')),
  ];
  const found = candidates.flatMap((series) => {
    const early = series && since(series, hips.time - LONGEST_LOAD);
    if (!early || travel(early, hips.time) < LEAST[early.unit]) return [];
    const start = startOf(early, motion, hips.time, { of: 'creeping' });
    return start ? [start] : [];
  });
  const first = found.reduce<EventMark | null>(
    (early, one) => (early === null || one.time < early.time ? one : early),
    null,
  );
  if (!first || motion.view === '3d') return first;
  const strays = isSeenByTracker(motion) ? HALF_TRACKED : HALF_SEEN;
  return { ...first, sigma: Math.hypot(first.sigma, strays) };
}

function since(series: Series, from: number): Series {
  const keep = series.times.map((time) => time >= from);
  const pick = (list: readonly number[]) => list.filter((_, i) => keep[i]);
  return {
    ...series,
    frames: pick(series.frames),
    times: pick(series.times),
    values: pick(series.values),
  };
}

/** Hz; a load is slow, and noise must not pass for one. */
const LOAD_CUTOFF = 10;

/** How far a series climbs above its first twentieth of a second, up to a time. */
function travel({ times, values }: Series, until: number): number {
  const last = lowerBound(times, until);
  if (last < 3) return 0;
  const even = resampleEvenly(times.slice(0, last), values.slice(0, last));
  const smooth = lowpass(even.values, LOAD_CUTOFF, even.rate);
  const start = smooth.filter((_, i) => even.times[i]! <= even.times[0]! + 0.05);
  const base = start.reduce((sum, value) => sum + value, 0) / start.length;
  return Math.max(...smooth) - base;
}

function named(name: 'hips' | 'trunk' | 'arm', mark: EventMark | null): Events {
  return mark ? { [name]: mark } : {};
}
