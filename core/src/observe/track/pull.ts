/**
 * The coach's points win over tracked ones, and pull their neighbours with them: what was wrong by so
 * much on one frame was wrong by about as much on the frames around it.
 */
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';

/** How far a placed point reaches, seconds. */
export const REACH = 0.08;
/** Two placed points no further apart than this settle all that is between them, seconds. */
export const SETTLED = 0.2;

/** One landmark's points, frames ascending. */
export interface Dense {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly sigma: readonly number[];
  readonly bias: readonly number[];
  readonly isTracked: true;
}

/** Points placed by the coach, frames ascending, pixels. */
export interface PlacedPath {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** How exactly they are placed. */
  readonly sigma: number;
}

/** Tracked points with placed ones put in their midst. */
export function pulled(tracked: Dense, placed: PlacedPath): Dense {
  if (placed.frames.length === 0) return tracked;
  const moves = (['x', 'y'] as const).map((axis) =>
    placed.times.map((time, k) => placed[axis][k]! - trackedAt(tracked, axis, time)),
  );
  const rows = tracked.frames.map((frame, i) => {
    const time = tracked.times[i]!;
    const shares = sharesAt(placed.times, time);
    const by = moves.map((move) => shares.reduce((sum, [k, share]) => sum + share * move[k]!, 0));
    const whole = shares.reduce((sum, [, share]) => sum + share, 0);
    return {
      frame,
      time,
      x: tracked.x[i]! + by[0]!,
      y: tracked.y[i]! + by[1]!,
      sigma: tracked.sigma[i]!,
      bias: Math.hypot((1 - whole) * tracked.bias[i]!, whole * placed.sigma),
    };
  });
  const own = placed.frames.map((frame, k) => ({
    frame,
    time: placed.times[k]!,
    x: placed.x[k]!,
    y: placed.y[k]!,
    sigma: placed.sigma,
    bias: 0,
  }));
  const isPlaced = new Set(placed.frames);
  const all = [...rows.filter(({ frame }) => !isPlaced.has(frame)), ...own].sort(
    (a, b) => a.frame - b.frame,
  );
  return {
    frames: all.map((row) => row.frame),
    times: all.map((row) => row.time),
    x: all.map((row) => row.x),
    y: all.map((row) => row.y),
    sigma: all.map((row) => row.sigma),
    bias: all.map((row) => row.bias),
    isTracked: true,
  };
}

/** Where the tracker had it at a time, or nearest to it. */
function trackedAt(tracked: Dense, axis: 'x' | 'y', time: number): number {
  const last = tracked.times.length - 1;
  if (time <= tracked.times[0]!) return tracked[axis][0]!;
  if (time >= tracked.times[last]!) return tracked[axis][last]!;
  return interpolate(tracked.times, tracked[axis], time);
}

/** Whose moves a time takes part in, and by how much: placed points before and behind it. */
function sharesAt(times: readonly number[], time: number): (readonly [number, number])[] {
  const after = lowerBound(times, time);
  const before = after - 1;
  if (times[after] === undefined && times[before] === undefined) return [];
  const [t0, t1] = [times[before], times[after]];
  if (t0 !== undefined && t1 !== undefined && t1 - t0 <= SETTLED) {
    const share = t1 > t0 ? (time - t0) / (t1 - t0) : 1;
    return [
      [before, 1 - share],
      [after, share],
    ];
  }
  const reaching = (k: number, at: number | undefined) =>
    at === undefined ? [] : [[k, Math.max(0, 1 - Math.abs(time - at) / REACH)] as const];
  return [...reaching(before, t0), ...reaching(after, t1)];
}
