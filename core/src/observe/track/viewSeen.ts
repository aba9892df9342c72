/**
 * From where a film seems to have been taken, read off the body that was found in it: the head, which
 * a striker keeps to the target, and whether the body is foreshortened from head to foot. It corrects
 * a view that was declared wrongly; where a camera stands between two views it takes no side.
 */
import { median } from 'd3-array';
import type { Landmark } from '../../foundation/body/landmarks';
import type { View } from '../../foundation/technique/techniques';
import type { PictureTrack } from './track';

/** Metres: how far the nose stands before the ears, and the ears apart (adults, common practice, no source). */
const HEAD = { nose: 0.1, ears: 0.15 };
/** From above the body from shoulders to ankles is shorter than so many breadths of the shoulders. */
const FORESHORTENED = 1.6;
/** Degrees from the target at which each view is taken. */
const PLACES: readonly (readonly [View, number])[] = [
  ['front', 0],
  ['side', 90],
  ['behind', 180],
];
/**
 * A declared view stands as long as the camera may be so near to it, degrees: a body tracker sees both
 * ears of a head in profile, and told a camera at 100° from 64 to 69° (four of the demo's films).
 */
const NEAR = 60;
/** A view is guessed where the camera seems to stand so near to it, degrees: by the same films. */
const GUESSED = 35;
/** With fewer frames nothing is said. */
const FEWEST = 10;

interface Place {
  readonly x: number;
  readonly y: number;
}

type Points = Pick<PictureTrack, 'points'>;

/**
 * @param track pixels of one picture, of which the head, shoulders and ankles are asked
 * @param declared from where the coach says that it was filmed
 * @returns the view that it looks like; null where the declared one may be right, or nothing tells
 */
export function viewSeen(track: Points, declared: View): View | null {
  const off = cameraOff(track);
  if (off === null) return null;
  if (off === 'above') return declared === 'above' ? null : 'above';
  const own = PLACES.find(([view]) => view === declared);
  return own && Math.abs(off - own[1]) <= NEAR ? null : nearestTo(off)[0];
}

/**
 * The view that a film of which nothing has been said looks like.
 *
 * @param track as for `viewSeen`
 * @returns null where the camera seems to stand between two views, or nothing tells
 */
export function viewGuess(track: Points): View | null {
  const off = cameraOff(track);
  if (off === null || off === 'above') return off;
  const [view, place] = nearestTo(off);
  return Math.abs(off - place) <= GUESSED ? view : null;
}

const nearestTo = (off: number) =>
  PLACES.reduce((a, b) => (Math.abs(off - b[1]) < Math.abs(off - a[1]) ? b : a));

/** Degrees from the target at which the camera seems to stand; null where nothing tells. */
function cameraOff({ points }: Points): number | 'above' | null {
  const frames = placesBy(points);
  const long = middleOf(frames, (at) => {
    const [shoulders, ankles] = [between(at, 'Shoulder'), between(at, 'Ankle')];
    const [left, right] = [at('leftShoulder'), at('rightShoulder')];
    if (!shoulders || !ankles || !left || !right) return null;
    const breadth = Math.hypot(left.x - right.x, left.y - right.y);
    return Math.hypot(shoulders.x - ankles.x, shoulders.y - ankles.y) / Math.max(breadth, 1);
  });
  if (long === null) return null;
  if (long < FORESHORTENED) return 'above';
  return middleOf(frames, (at) => {
    const [nose, ears] = [at('nose'), between(at, 'Ear')];
    const [left, right] = [at('leftEar'), at('rightEar')];
    if (!nose || !ears || !left || !right) return null;
    const ahead = Math.abs(nose.x - ears.x) / HEAD.nose;
    // Seen from the front a person's left is on the right of the picture.
    return (Math.atan2(ahead, (left.x - right.x) / HEAD.ears) * 180) / Math.PI;
  });
}

type At = (landmark: Landmark) => Place | undefined;

function between(at: At, part: 'Ear' | 'Shoulder' | 'Ankle'): Place | null {
  const [a, b] = [at(`left${part}`), at(`right${part}`)];
  return a && b ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } : null;
}

function placesBy(points: PictureTrack['points']): readonly At[] {
  const frames = new Map<number, Map<Landmark, Place>>();
  for (const [landmark, { frames: known, x, y }] of Object.entries(points)) {
    known.forEach((frame, i) => {
      const here = frames.get(frame) ?? new Map<Landmark, Place>();
      here.set(landmark as Landmark, { x: x[i]!, y: y[i]! });
      frames.set(frame, here);
    });
  }
  return [...frames.values()].map((here) => (landmark) => here.get(landmark));
}

function middleOf(frames: readonly At[], of: (at: At) => number | null): number | null {
  const values = frames.map(of).filter((value) => value !== null);
  return values.length < FEWEST ? null : median(values)!;
}
