/** Two strikes, or two sets, reading by reading. */
import {
  MEASURE_IDS,
  MEASURE_NAMES,
  type MeasureId,
  type Readings,
} from '../../measure/measures/allMeasures';
import { isAbsent, isPresent } from '../../foundation/reading/reading';
import {
  changeBetween,
  notComparable,
  wantedOf,
  type Change,
  type Circumstances,
  type Judging,
} from './change';

export interface Compared extends Circumstances {
  readonly readings: Readings;
  /** How many strikes the readings are the median of. */
  readonly strikes: number;
}

export interface Difference {
  readonly id: MeasureId;
  readonly name: string;
  readonly change: Change;
}

/** Typical errors of marking by reading, in its SI unit. */
export type TypicalErrors = Readonly<Partial<Record<MeasureId, number>>>;

/**
 * Every reading that at least one of the two has; those of another kind of strike are left out. Real
 * changes first, better and worse before merely changed, then noise, then what cannot be compared.
 */
export function differencesOf(
  then: Compared,
  now: Compared,
  judging: Judging,
  typical: TypicalErrors = {},
): Difference[] {
  const all = MEASURE_IDS.flatMap((id): Difference[] => {
    const [a, b] = [then.readings[id], now.readings[id]];
    if (isAbsent(a) && isAbsent(b)) return [];
    const why = notComparable(
      then,
      now,
      [a, b].filter(isPresent).map(({ source }) => source),
    );
    const change: Change = why
      ? { notComparable: why }
      : changeBetween(a, b, wantedOf(id, now.technique, judging), {
          typicalError: typical[id] ?? null,
          strikes: [then.strikes, now.strikes],
        });
    return [{ id, name: MEASURE_NAMES[id], change }];
  });
  return all.sort((a, b) => weight(b.change) - weight(a.change));
}

function weight(change: Change): number {
  if ('notComparable' in change) return -1;
  const size = Math.abs(change.difference) / (change.noise || Number.MIN_VALUE);
  // Sizes only order those of one verdict.
  const within = 1 - 1 / (1 + size);
  return { few: 0, noise: 0, changed: 1, better: 2, worse: 2 }[change.verdict] + within;
}
