/** Where a session stands: from clock times alone, so that a reload or a sleeping tab loses nothing. */
import type { Segment } from './session';

/** Milliseconds of a clock that goes on while the page is closed. */
export interface Run {
  /** The segment in hand, and when it began. */
  readonly index: number;
  readonly since: number;
  /** Since when it stands still; null while it runs. */
  readonly pausedAt: number | null;
}

export function begin(now: number): Run {
  return { index: 0, since: now, pausedAt: null };
}

/** Seconds into the segment in hand. */
export function into({ since, pausedAt }: Run, now: number): number {
  return ((pausedAt ?? now) - since) / 1000;
}

/** Go on by the clock: over every segment whose time is up. Work without a time waits for a tap. */
export function advanced(run: Run, segments: readonly Segment[], now: number): Run {
  if (run.pausedAt !== null) return run;
  let { index, since } = run;
  while (index < segments.length) {
    const { seconds } = segments[index]!;
    if (seconds === null || now - since < seconds * 1000) break;
    since += seconds * 1000;
    index += 1;
  }
  return index === run.index ? run : { ...run, index, since };
}

export function paused(run: Run, now: number): Run {
  return run.pausedAt === null ? { ...run, pausedAt: now } : run;
}

export function resumed(run: Run, now: number): Run {
  if (run.pausedAt === null) return run;
  return { ...run, since: run.since + (now - run.pausedAt), pausedAt: null };
}

/** To a segment by hand, its time anew. */
export function jumped(run: Run, index: number, now: number, count: number): Run {
  const within = Math.min(count, Math.max(0, index));
  return { index: within, since: now, pausedAt: run.pausedAt === null ? null : now };
}

export function isOver({ index }: Run, segments: readonly Segment[]): boolean {
  return index >= segments.length;
}

/** A warning comes so many seconds before work or rest ends. */
export const WARNING = 10;

export type Signal = 'bell' | 'warning';

/** What is to be heard between two looks at the clock; after a long gap only how it stands now. */
export function signalBetween(
  before: Run,
  after: Run,
  segments: readonly Segment[],
  previous: number,
  now: number,
): Signal | null {
  if (after.index !== before.index) return 'bell';
  const { seconds } = segments[after.index] ?? { seconds: null };
  if (seconds === null || seconds <= 2 * WARNING || after.pausedAt !== null) return null;
  const left = (at: number) => seconds - into(after, at);
  return left(previous) > WARNING && left(now) <= WARNING ? 'warning' : null;
}
