/**
 * What a handful of frames around a hit show within a second or two: how the body stands as it hits, against
 * how it stood in guard half a second before. Heights only, which every level camera shows from any side.
 * It needs no start of a link, no target and no scale; what needs them is the bench's.
 */
import { median } from 'd3-array';
import { sided, otherSide, type Landmark, type Side } from '../../foundation/body/landmarks';
import {
  absent,
  halfWidth,
  isAbsent,
  reading,
  type Measured,
} from '../../foundation/reading/reading';
import { quantity, say } from '../../foundation/reading/say';
import type { PictureTrack } from '../../observe/track/track';

export const GLIMPSES = ['guard', 'level', 'reach'] as const;
export type GlimpseId = (typeof GLIMPSES)[number];

export const GLIMPSE_NAMES: Readonly<Record<GlimpseId, string>> = {
  guard: 'the other hand',
  level: 'the level of the hips',
  reach: 'the reach at contact',
};

/** All three; the reach is measured as everywhere else. */
export type Glimpse = Readonly<Record<GlimpseId, Measured>>;

export interface Glimpsed {
  /** By how much the other hand is lower at the hit than in guard, against the nose. */
  readonly guard: Measured;
  /** By how much the hips are lower at the hit than in guard. */
  readonly level: Measured;
}

/** Seconds before the hit between which the student stands in guard. */
const GUARD = [-0.9, -0.5] as const;
/** Seconds around the hit: what is heard is known no better, and the body hardly moves meanwhile. */
const HIT = [-0.05, 0.05] as const;
/** So many frames at least, of each. */
const LEAST = 2;

/**
 * One standard deviation of a difference of heights, as a share of the body's own: the tracker leans another
 * way in guard than at the hit. Found on eleven films of rendered fighters (demo/test/oneFilm.test.ts holds it), of which real
 * people may differ.
 */
const LEANS = { guard: 0.025, level: 0.01 } as const;
/** Who is hidden half of the time is told with a doubt that is no use at the mat: this often that of one in view. */
const USELESS = 2;

/**
 * @param track as tracked, pixels
 * @param stature standing height in the picture, pixels
 * @param height of the student, metres; null gives shares of it
 * @param hit real time, seconds
 * @param striking the hand that hits; null where it is not known, which leaves the other hand open
 */
export function glimpse(
  track: PictureTrack,
  stature: number,
  height: number | null,
  hit: number,
  striking: Side | null,
): Glimpsed {
  const fall = (value: Height, id: keyof Glimpsed, what: string): Measured => {
    const guard = middleOf(track, value, hit, GUARD);
    const now = middleOf(track, value, hit, HIT);
    if (!guard || !now || stature <= 0) return absent(`${what} not seen well enough this time.`);
    const share = (now.value - guard.value) / stature;
    const sigma = Math.hypot(LEANS[id], guard.sigma / stature, now.sigma / stature);
    if (sigma > USELESS * LEANS[id]) return absent(`${what} not seen well enough this time.`);
    const frames = [...guard.frames, ...now.frames];
    return height === null
      ? reading(share, 'ratio', sigma, 'measured-2d', frames)
      : reading(share * height, 'm', sigma * height, 'measured-2d', frames);
  };
  return {
    guard: striking
      ? fall(under(sided(otherSide(striking), 'Wrist'), 'nose'), 'guard', 'The other hand was')
      : absent('Say what is struck, and the other hand is watched.'),
    level: fall(hipsHeight, 'level', 'The hips were'),
  };
}

/** Pixels down the picture on a frame; null where it is not seen. */
type Height = (at: (landmark: Landmark) => number | null) => number | null;

const under =
  (landmark: Landmark, from: Landmark): Height =>
  (at) => {
    const [one, other] = [at(landmark), at(from)];
    return one === null || other === null ? null : one - other;
  };

const hipsHeight: Height = (at) => {
  const seen = [at('leftHip'), at('rightHip')].filter((one) => one !== null);
  return seen.length === 2 ? (seen[0]! + seen[1]!) / 2 : null;
};

interface Middle {
  readonly value: number;
  readonly sigma: number;
  readonly frames: readonly number[];
}

/** Of the frames in a window around the hit: the median, which one lost frame does not move. */
function middleOf(
  { frameTimes, points }: PictureTrack,
  height: Height,
  hit: number,
  [from, to]: readonly [number, number],
): Middle | null {
  const values: { readonly frame: number; readonly value: number }[] = [];
  frameTimes.forEach((time, frame) => {
    if (time < hit + from || time > hit + to) return;
    const value = height((landmark) => {
      const seen = points[landmark];
      const at = seen?.frames.indexOf(frame) ?? -1;
      return at < 0 ? null : seen!.y[at]!;
    });
    if (value !== null) values.push({ frame, value });
  });
  if (values.length < LEAST) return null;
  const middle = median(values, ({ value }) => value)!;
  const off = median(values, ({ value }) => Math.abs(value - middle))!;
  return {
    value: middle,
    // The median's own: 1.4826 MAD is σ of normal noise, and √(π/2) the price of a median.
    sigma: (1.4826 * 1.2533 * off) / Math.sqrt(values.length),
    frames: values.map(({ frame }) => frame),
  };
}

/** One sentence for the coach at the mat. */
export function sayGlimpse(id: GlimpseId, measured: Measured): string {
  if (isAbsent(measured)) return measured.absent;
  if (id === 'reach') return `${say(measured)} of the reach is used at the hit.`;
  const of = measured.unit === 'ratio' ? ' of the height' : '';
  const way = say({ ...measured, value: Math.abs(measured.value) }) + of;
  const within = quantity(halfWidth(measured), measured.unit) + of;
  const isMoved = Math.abs(measured.value) > halfWidth(measured);
  const where = isMoved
    ? `${way} ${measured.value > 0 ? 'lower' : 'higher'} than in guard`
    : `as high as in guard, within ${within}`;
  return id === 'guard' ? `Other hand, against the nose: ${where}.` : `Hips: ${where}.`;
}
