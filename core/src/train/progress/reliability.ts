/** How far repeated markings of the same strikes agree: what any change has to beat. */
import { mean, sum } from 'd3-array';

export interface Reliability {
  readonly subjects: number;
  readonly trials: number;
  /** Typical error: the standard deviation of one subject's repeats, in the reading's unit. */
  readonly typicalError: number;
  /** Smallest detectable change between two single values: 1.96 · √2 · typical error. */
  readonly smallestChange: number;
  /** Agreement in the numbers themselves, trials taken as drawn from many. */
  readonly icc21: number;
  /** Agreement in the order and distances, these trials only. */
  readonly icc31: number;
}

/**
 * Two-way analysis of variance of a table of subjects × trials.
 *
 * Typical error = √(mean square of the residual): a shift that all subjects share from trial to
 * trial is not counted (Hopkins, Sports Medicine 2000; 30: 1–15). ICC(2,1) and ICC(3,1) after Shrout
 * and Fleiss, Psychological Bulletin 1979; 86: 420–428.
 *
 * @param table one row a subject, one number a trial; 2 × 2 or more
 * @returns null when the table is too small or has gaps, or nothing in it differs
 */
export function reliabilityOf(table: readonly (readonly number[])[]): Reliability | null {
  const n = table.length;
  const k = table[0]?.length ?? 0;
  if (n < 2 || k < 2 || table.some((row) => row.length !== k || !row.every(Number.isFinite))) {
    return null;
  }
  const grand = mean(table.flat())!;
  const rowMeans = table.map((row) => mean(row)!);
  const columnMeans = table[0]!.map((_, j) => mean(table, (row) => row[j])!);
  const betweenRows = (k * sum(rowMeans, (m) => (m - grand) ** 2)) / (n - 1);
  const betweenColumns = (n * sum(columnMeans, (m) => (m - grand) ** 2)) / (k - 1);
  const residual =
    sum(
      table.flatMap((row, i) =>
        row.map((x, j) => (x - rowMeans[i]! - columnMeans[j]! + grand) ** 2),
      ),
    ) /
    ((n - 1) * (k - 1));
  const spread = betweenRows + (k - 1) * residual;
  if (!(spread > 0)) return null;
  const typicalError = Math.sqrt(residual);
  return {
    subjects: n,
    trials: k,
    typicalError,
    smallestChange: 1.96 * Math.SQRT2 * typicalError,
    icc21: (betweenRows - residual) / (spread + (k * (betweenColumns - residual)) / n),
    icc31: (betweenRows - residual) / spread,
  };
}
