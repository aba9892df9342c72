/** What a fault costs: momentum toward the target that the same strike would have without it. */

export type Cost =
  | {
      /** Momentum toward the target that is lost, N·s, and the range that holds it in 9 of 10 cases. */
      readonly lost: number;
      readonly low: number;
      readonly high: number;
      /** The same, as a share of what the strike would have without the fault. */
      readonly share: number;
      readonly shareLow: number;
      readonly shareHigh: number;
    }
  | { readonly unknown: string };

export type KnownCost = Exclude<Cost, { unknown: string }>;

export function isKnown(cost: Cost | null): cost is KnownCost {
  return cost !== null && !('unknown' in cost);
}

/** Neither is larger beyond doubt. */
export function isTie(a: KnownCost, b: KnownCost): boolean {
  return a.low <= b.high && b.low <= a.high;
}

/** "about 12 % (5 to 20 %) of the momentum". */
export function costInWords({ share, shareLow, shareHigh, lost }: KnownCost): string {
  const percent = (value: number) => `${Math.round(100 * value)} %`.replace('-', '−');
  return (
    `about ${percent(share)} (${percent(shareLow)} to ${percent(shareHigh)}) of the momentum ` +
    `to the target, ${lost.toFixed(1)} N·s`
  );
}
