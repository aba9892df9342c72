/** The phases as one band over the lanes: which stretches there are, and where their names find room. */
import type { EventName, Marks } from '@sinew/core/measure/events/events';
import { PHASES } from '@sinew/core/measure/events/phases';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { quantity, say } from '@/manner/manner';

/** One phase, or several that cannot be told apart because an instant between them is not known. */
export interface Stretch {
  readonly id: string;
  /** "Explode", or "Load, explode". */
  readonly name: string;
  /** Seconds. */
  readonly from: number;
  readonly to: number;
  /** Its length with ±, and without; empty where it is not measured. */
  readonly value: string;
  readonly short: string;
  /** Instants that would part it. */
  readonly missing: readonly EventName[];
}

export function stretchesOf(marks: Marks, readings: Readings | null): Stretch[] {
  const found: Stretch[] = [];
  let begun: { names: string[]; from: number; missing: EventName[]; id: string } | null = null;
  for (const { id, name, from, to } of PHASES) {
    const [start, end] = [marks[from], marks[to]];
    if (!begun) {
      if (!start) continue;
      begun = { names: [], from: start.time, missing: [], id };
    }
    begun.names.push(name);
    if (!end) {
      begun.missing.push(to);
      continue;
    }
    const isWhole = begun.names.length === 1;
    const span = isWhole ? readings?.[`phase.${id}`] : undefined;
    const length = span && !isAbsent(span) ? span : null;
    found.push({
      id: begun.id,
      name: begun.names.map((one, i) => (i === 0 ? one : one.toLowerCase())).join(', '),
      from: begun.from,
      to: end.time,
      value: length ? say(length) : '',
      short: length ? quantity(length.value, 's') : '',
      missing: begun.missing,
    });
    begun = null;
  }
  return found;
}

export interface Label {
  /** Where it would like to stand, and how much room it takes, pixels. */
  readonly centre: number;
  readonly width: number;
}

/**
 * Left ends of labels in one row, none over another, as near to their places as the others let them:
 * the least sum of squared shifts, by pooling neighbours that would meet (isotonic regression).
 *
 * Source: R. E. Barlow et al., Statistical Inference under Order Restrictions (1972), pool adjacent
 * violators.
 *
 * @param labels from left to right
 */
export function inOneRow(
  labels: readonly Label[],
  [left, right]: readonly [number, number],
): number[] {
  let before = 0;
  const pools: { wish: number; count: number }[] = [];
  for (const { centre, width } of labels) {
    // Where the row would begin if this label alone had its way.
    pools.push({ wish: centre - width / 2 - before, count: 1 });
    before += width;
    for (let last = pools.length - 1; last > 0; last--) {
      const [a, b] = [pools[last - 1]!, pools[last]!];
      if (a.wish <= b.wish) break;
      const count = a.count + b.count;
      pools.splice(last - 1, 2, { wish: (a.wish * a.count + b.wish * b.count) / count, count });
    }
  }
  const most = Math.max(left, right - before);
  const begins = pools.flatMap(({ wish, count }) =>
    Array<number>(count).fill(Math.min(most, Math.max(left, wish))),
  );
  let along = 0;
  return labels.map(({ width }, i) => {
    const start = begins[i]! + along;
    along += width;
    return start;
  });
}
