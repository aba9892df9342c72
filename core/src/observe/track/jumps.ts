/** Points at which nothing could have been, coming from where it was. */

/** A point of one landmark as a tracker saw it. */
export interface SeenPoint {
  readonly frame: number;
  /** Seconds. */
  readonly time: number;
  /** Pixels. */
  readonly x: number;
  readonly y: number;
  /** 0 to 1. */
  readonly visibility: number;
}

/**
 * Body heights a second. The fastest foot of a kick goes at some 16 m/s, nine or ten heights a
 * second, but nothing does so for longer than a few frames (common practice, no source).
 */
const FASTEST = 12;
const LASTING = 4;
/** A tracker strays by this share of the body's height without anything having gone wrong. */
const STRAYS = 0.03;
/** Points further apart than this have nothing to do with each other, seconds. */
const LONGEST = 0.2;
/**
 * What a step that is too long by a whole body height costs, and at most, in seconds of well seen
 * points: up to a quarter of a second out of place is left out rather than believed.
 */
const COST = 0.8;
const MOST = 0.13;

/**
 * The points that hang together: of all ways through the points, the one that keeps most of what was
 * surely seen and takes fewest steps that a body cannot take, by dynamic programming. What it leaves
 * out are jumps, of one frame or of many.
 *
 * @param points frames ascending
 * @param stature the body's height, pixels
 * @returns true for each point that is kept
 */
export function withoutJumps(points: readonly SeenPoint[], stature: number): boolean[] {
  const best: number[] = [];
  const from: number[] = [];
  points.forEach((now, i) => {
    const own = worth(points, i);
    best[i] = own;
    from[i] = -1;
    for (let k = i - 1; k >= 0; k--) {
      const value = best[k]! + own - costOf(points[k]!, now, i - k > 1, stature);
      if (value > best[i]!) {
        best[i] = value;
        from[i] = k;
      }
      if (now.time - points[k]!.time > LONGEST) break;
    }
  });
  let last = points.length - 1;
  for (let i = last; i >= 0; i--) if (best[i]! > best[last]!) last = i;
  const kept = points.map(() => false);
  for (let i = last; i >= 0; i = from[i]!) kept[i] = true;
  return kept;
}

/** Seconds that a point stands for, less where it is not surely seen. */
function worth(points: readonly SeenPoint[], i: number): number {
  const [before, after] = [
    points[Math.max(0, i - 1)]!,
    points[Math.min(i + 1, points.length - 1)]!,
  ];
  const stands = Math.min(LONGEST, (after.time - before.time) / 2);
  return stands * (0.1 + points[i]!.visibility);
}

function costOf(before: SeenPoint, now: SeenPoint, isSkipping: boolean, stature: number): number {
  const apart = now.time - before.time;
  if (apart > LONGEST) return 0;
  const far = Math.hypot(now.x - before.x, now.y - before.y) / stature;
  const possible = STRAYS + (isSkipping ? LASTING : FASTEST) * apart;
  return Math.min(MOST, COST * Math.max(0, far - possible));
}
