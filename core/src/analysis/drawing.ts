/** What a coach draws by hand on a frame of the film, to show something to a student. */
import { z } from 'zod';

/** In the picture's own pixels; a picture has no more than this many across. */
const pixel = z.number().min(-20_000).max(20_000);
const pointSchema = z.object({ x: pixel, y: pixel });

export const DRAWINGS = ['line', 'arrow', 'angle', 'free', 'words'] as const;
export type DrawingKind = (typeof DRAWINGS)[number];

/** Points of a line drawn by hand, at most. */
export const MOST_POINTS = 500;

/** So many points each kind is made of, at least and at most. */
const POINTS: Readonly<Record<DrawingKind, readonly [number, number]>> = {
  line: [2, 2],
  arrow: [2, 2],
  angle: [3, 3],
  free: [2, MOST_POINTS],
  words: [1, 1],
};

export const drawingSchema = z
  .object({
    id: z.string().min(1).max(40),
    frame: z.number().int().nonnegative(),
    kind: z.enum(DRAWINGS),
    /** An angle's corner is its second point; words stand to the right of theirs. */
    points: z.array(pointSchema).min(1).max(MOST_POINTS),
    /** Of `words`. */
    text: z.string().trim().min(1).max(120).optional(),
  })
  .refine(({ kind, points }) => {
    const [fewest, most] = POINTS[kind];
    return points.length >= fewest && points.length <= most;
  }, 'a drawing has the points of its kind')
  .refine(({ kind, text }) => (kind === 'words') === (text !== undefined), 'words say something');

export type Drawing = z.infer<typeof drawingSchema>;
type Point = Drawing['points'][number];

/** Drawings one clip holds at most: more than anybody draws, few enough to be read at once. */
export const MOST_DRAWINGS = 500;

/** The angle at the middle of three points as it stands in the picture, degrees, 0 to 180. */
export function angleIn([a, corner, b]: readonly Point[]): number {
  const [ax, ay] = [a!.x - corner!.x, a!.y - corner!.y];
  const [bx, by] = [b!.x - corner!.x, b!.y - corner!.y];
  return (Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) * 180) / Math.PI;
}

/**
 * A line drawn by hand with fewer points that still runs within `within` pixels of every one of them.
 *
 * Source: D. H. Douglas, T. K. Peucker, Algorithms for the reduction of the number of points required
 * to represent a digitized line or its caricature, Cartographica 10 (1973).
 */
export function simplified(points: readonly Point[], within: number): Point[] {
  if (points.length < 3) return [...points];
  const [first, last] = [points[0]!, points[points.length - 1]!];
  let far = 0;
  let most = within;
  for (let i = 1; i < points.length - 1; i++) {
    const away = distance(points[i]!, first, last);
    if (away > most) [far, most] = [i, away];
  }
  if (far === 0) return [first, last];
  const before = simplified(points.slice(0, far + 1), within);
  return [...before.slice(0, -1), ...simplified(points.slice(far), within)];
}

/** From a point to the stretch between two others, pixels. */
export function distance({ x, y }: Point, from: Point, to: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = dx * dx + dy * dy;
  const along = length === 0 ? 0 : ((x - from.x) * dx + (y - from.y) * dy) / length;
  const at = Math.min(1, Math.max(0, along));
  return Math.hypot(x - from.x - at * dx, y - from.y - at * dy);
}
