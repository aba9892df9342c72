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

/** Of either it is less likely than four in five that it is the dearer. */
export function isTie(a: KnownCost, b: KnownCost): boolean {
  const sigma = ({ low, high }: KnownCost) => (high - low) / (2 * NINE_OF_TEN);
  return Math.abs(a.lost - b.lost) < FOUR_OF_FIVE * Math.hypot(sigma(a), sigma(b));
}

/** Quantiles of the normal: both tails of one in ten, and one of one in five. */
const NINE_OF_TEN = 1.645;
const FOUR_OF_FIVE = 0.842;

const percent = (value: number) => `${Math.round(100 * value)} %`.replace('-', '−');

/** "−12 % momentum"; where it may as well be nothing, only how much it can be. */
export function costInShort({ share, shareLow, shareHigh }: KnownCost): string {
  if (shareHigh <= 0) return 'no momentum lost';
  return shareLow > 0 ? `−${percent(share)} momentum` : `up to −${percent(shareHigh)} momentum`;
}

/** "about 12 % (5 to 20 %) of the momentum"; "hardly any (at most 9 %)"; "about 10 % (at most 38 %)". */
export function costInWords({ share, shareLow, shareHigh, lost }: KnownCost): string {
  const most = `at most ${percent(Math.max(0, shareHigh))}`;
  if (share < 0.01) return `hardly any momentum (${most})`;
  const range = shareLow > 0 ? `${percent(shareLow)} to ${percent(shareHigh)}` : most;
  return `about ${percent(share)} (${range}) of the momentum to the target, ${lost.toFixed(1)} N·s`;
}
