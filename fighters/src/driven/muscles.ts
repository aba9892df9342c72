/**
 * What moves the driven fighter: not the judge's own muscles, on purpose. They come on through two stages, lose
 * pull with speed more or less evenly, and pull most in the middle of their range; what a joint has of its own is tissue.
 */

/** Share of the pull that has come on: two stages of the same length one after the other. */
export function comeOn(since: number, stage: number): number {
  if (since <= 0) return 0;
  const s = since / stage;
  return 1 - (1 + s) * Math.exp(-s);
}

/** What a muscle stretched fast holds at most, of its standing pull (from memory; 1.2–1.5 in books). */
const HOLDS = 1.25;

/**
 * Share of the standing pull that is left at a speed.
 *
 * @param speed of shortening ÷ the speed at which nothing is left; negative where it is stretched
 * @param bent how far from evenly it is lost: 0 = evenly, 4 = as Hill's curve for a/F₀ = ¼
 */
export function left(speed: number, bent: number): number {
  if (speed < 0) return Math.min(HOLDS, 1 - speed);
  return Math.max(0, 1 - speed) / (1 + bent * speed);
}

/** How much less a muscle pulls at either end of its range: a quarter (common practice, no source). */
const AT_THE_ENDS = 0.25;

/** @param share of the range gone through, 0 to 1 */
export function inRange(share: number): number {
  return 1 - AT_THE_ENDS * (2 * Math.min(1, Math.max(0, share)) - 1) ** 2;
}

/** Tissue that tightens toward the end of a joint's range: nothing before, steeply more beyond. */
export function tightens(over: number, rate: number): number {
  return over <= 0 ? 0 : 300 * over + 4000 * over ** 2 + 8 * Math.max(0, rate);
}
