/** What the tables of docs/accuracy.md are made of. */

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

const row = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;

export const table = (heads: readonly string[], rows: readonly (readonly string[])[]) =>
  [row(heads), row(heads.map(() => '---')), ...rows.map(row)].join('\n');
