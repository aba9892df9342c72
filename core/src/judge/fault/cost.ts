/** What a fault costs: momentum toward the target that the same strike would have without it, or time. */
import type { TimedPrice } from './schema';

export interface KnownCost {
  /** What is lost, as a share of what the strike would have without the fault; the range holds it in 9 of 10. */
  readonly share: number;
  readonly shareLow: number;
  readonly shareHigh: number;
  /** The same in N·s; null where the mass behind the strike is not known. */
  readonly lost: number | null;
  readonly low: number | null;
  readonly high: number | null;
}

/** For how long it warns, or leaves something open; the range holds it in 9 of 10. */
export interface TimeCost {
  readonly seconds: number;
  readonly secondsLow: number;
  readonly secondsHigh: number;
  readonly of: TimedPrice;
}

export type Cost = KnownCost | TimeCost | { readonly unknown: string };

/** Known in momentum: what takes time is not weighed against it. */
export function isKnown(cost: Cost | null): cost is KnownCost {
  return cost !== null && 'share' in cost;
}

export function isTimed(cost: Cost | null): cost is TimeCost {
  return cost !== null && 'seconds' in cost;
}

/** Of either it is less likely than four in five that it is the dearer. */
export function isTie(a: KnownCost, b: KnownCost): boolean {
  const { differ, spreads } = beside(a, b);
  return Math.abs(differ) < FOUR_OF_FIVE * Math.hypot(...spreads);
}

/** Positive where the first is the dearer. */
export const dearer = (a: KnownCost, b: KnownCost): number => beside(a, b).differ;

/** In N·s where both are known so, else as shares: how far they differ, and one standard deviation of each. */
function beside(a: KnownCost, b: KnownCost) {
  const isWeighed = a.lost !== null && b.lost !== null;
  const [x, y] = [a, b].map(({ share, shareLow, shareHigh, lost, low, high }) =>
    isWeighed
      ? { at: lost!, spread: (high! - low!) / (2 * NINE_OF_TEN) }
      : { at: share, spread: (shareHigh - shareLow) / (2 * NINE_OF_TEN) },
  );
  return { differ: x!.at - y!.at, spreads: [x!.spread, y!.spread] };
}

/** Quantiles of the normal: both tails of one in ten, and one of one in five. */
export const NINE_OF_TEN = 1.645;
const FOUR_OF_FIVE = 0.842;

const percent = (value: number) => `${Math.round(100 * value)} %`.replace('-', '−');

/** "−12 % momentum"; where it may as well be nothing, only how much it can be. */
export function costInShort({ share, shareLow, shareHigh }: KnownCost): string {
  if (shareHigh <= 0) return 'no momentum lost';
  return shareLow > 0 ? `−${percent(share)} momentum` : `up to −${percent(shareHigh)} momentum`;
}

/** "about 12 % (5 to 20 %) of the momentum: …"; "hardly any (at most 9 %)"; "about 10 % (at most 38 %)". */
export function costInWords({ share, shareLow, shareHigh, lost }: KnownCost): string {
  const most = `at most ${percent(Math.max(0, shareHigh))}`;
  if (share < 0.01) return `hardly any momentum (${most})`;
  const range = shareLow > 0 ? `${percent(shareLow)} to ${percent(shareHigh)}` : most;
  // Without a mass the speeds were only added up.
  const amount = lost === null ? '' : `, ${lost.toFixed(1)} N·s`;
  return `about ${percent(share)} (${range}) of the momentum to the target${amount}: ${
    lost === null
      ? 'the same limb on a body that carries it as usual'
      : 'the same strike without it, in the chain model'
  }`;
}

const AS_TIME: Readonly<Record<TimedPrice, readonly [short: string, whole: string]>> = {
  warning: ['of warning', 'of warning'],
  cover: ['open', 'with the head open'],
  next: ['late for the next', 'late for the next strike'],
};

const hundredths = (seconds: number) => seconds.toFixed(2).replace('-', '−');

/** "0.18 s of warning", "0.31 s open". */
export function timeInShort({ seconds, of }: TimeCost): string {
  return `${hundredths(seconds)} s ${AS_TIME[of][0]}`;
}

/** "about 0.18 s (0.12 to 0.24 s) of warning", "about 0.31 s (0.28 to 0.34 s) with the head open". */
export function timeInWords({ seconds, secondsLow, secondsHigh, of }: TimeCost): string {
  const range = `${hundredths(Math.max(0, secondsLow))} to ${hundredths(secondsHigh)} s`;
  return `about ${hundredths(seconds)} s (${range}) ${AS_TIME[of][1]}`;
}
