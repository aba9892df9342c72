/** What is cut out of the pictures of a film for one band, and which of its columns show it. */
import { median } from 'd3-array';
import type { Landmark } from '../../foundation/body/landmarks';
import { sightOf, type Sight } from './match';
import { averaged, courseAround, standsOut, type Course, type Strip } from './strip';

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** Where a body tracker has the joints that bands sit between: pixels; null where it has none. */
export interface Joints {
  /** The left one first. */
  readonly hips: readonly [Place, Place] | null;
  readonly shoulders: readonly [Place, Place] | null;
  /** From elbow to wrist, those that are known. */
  readonly forearms: readonly (readonly [Place, Place])[];
}

/** @param at where a landmark is in the picture, pixels; null where that is not known */
export function jointsOf(at: (landmark: Landmark) => Place | null): Joints {
  const pair = (a: Landmark, b: Landmark) => {
    const [one, other] = [at(a), at(b)];
    return one && other ? ([one, other] as const) : null;
  };
  return {
    hips: pair('leftHip', 'rightHip'),
    shoulders: pair('leftShoulder', 'rightShoulder'),
    forearms: [pair('leftElbow', 'leftWrist'), pair('rightElbow', 'rightWrist')].filter(
      (arm) => arm !== null,
    ),
  };
}

export interface Frame {
  readonly time: number;
  readonly strip: Strip | null;
  readonly why: string | null;
  /** Pixels a metre. */
  readonly scale: number;
  /** How far the right joint is to the right of the left one in the picture, metres. */
  readonly across: number;
  readonly forearms: Joints['forearms'];
}

/** The strips' bands, at rows that are steady in time. */
export function sightsOf(frames: readonly Frame[]): (Sight | null)[] {
  const energies = frames.map(({ strip }) => strip && standsOut(strip));
  const total = new Map<number, number>();
  energies.forEach((energy) =>
    energy?.forEach((value, row) => {
      const most = Math.max(...energy);
      total.set(row, (total.get(row) ?? 0) + (value / most) ** 2);
    }),
  );
  const usual = [...total].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0])[0];
  const rows = energies.map((energy) => {
    if (!energy) return null;
    let best = usual;
    for (let row = usual - 5; row <= usual + 5; row++) {
      if ((energy[row] ?? 0) > (energy[best] ?? 0)) best = row;
    }
    return best;
  });
  return frames.map(({ strip, across, forearms, scale }, i) => {
    if (!strip) return null;
    const near = rows.slice(Math.max(0, i - 2), i + 3).filter((row) => row !== null);
    const row = Math.round(median(near)!);
    const course = courseAround(strip, row);
    const sight = sightOf(strip.grid, averaged(strip, course));
    return facesCamera({ across }) ? withoutArms(sight, strip, course, forearms, scale) : sight;
  });
}

/** The chest looks at the camera, and the arms are between. */
export const facesCamera = ({ across }: Pick<Frame, 'across'>) => across < 0;

/** Half as thick as a forearm with a wrap, and what a tracker strays, metres. */
const ARM = 0.06;

/** Columns that a forearm lies over count for nothing. */
function withoutArms(
  sight: Sight,
  strip: Strip,
  course: Course,
  forearms: Joints['forearms'],
  scale: number,
): Sight {
  if (forearms.length === 0) return sight;
  const weights = sight.weights.map((weight, column) => {
    const place = strip.placeAt(column, course);
    const isHidden = forearms.some((arm) => awayFrom(place, arm) < ARM * scale);
    return isHidden ? 0 : weight;
  });
  return { ...sight, weights };
}

/** Pixels from a place to the stretch between two others. */
function awayFrom({ x, y }: Place, [from, to]: readonly [Place, Place]): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const along = ((x - from.x) * dx + (y - from.y) * dy) / (dx * dx + dy * dy || 1);
  const share = Math.max(0, Math.min(1, along));
  return Math.hypot(x - from.x - share * dx, y - from.y - share * dy);
}
