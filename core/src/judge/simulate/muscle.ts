/** What drives a joint: muscle that takes time to come on and pulls less the faster it shortens. */

/** Seconds in which a muscle comes on to 63 % (from memory; textbooks give 0.02–0.05). */
export const RISE = 0.03;

/** Hill's curvature a/F₀ of the force–velocity hyperbola (Hill, Proc. R. Soc. B 126, 1938; about ¼). */
const CURVATURE = 0.25;
/** A muscle that is stretched holds at most this much more than it can pull standing (from memory). */
const STRETCHED = 1.4;

/** How far a muscle has come on. @param since seconds since it was called */
export function activation(since: number): number {
  return since <= 0 ? 0 : 1 - Math.exp(-since / RISE);
}

/**
 * Share of the standing pull that is left at a speed.
 *
 * @param speed of shortening ÷ the speed at which nothing is left; negative when it is stretched
 */
export function forceAt(speed: number): number {
  if (speed >= 1) return 0;
  if (speed >= 0) return (1 - speed) / (1 + speed / CURVATURE);
  // Goes on with the slope it has at rest, toward what a stretched muscle holds.
  const slope = 1 + 1 / CURVATURE;
  const more = STRETCHED - 1;
  return 1 + (more * -speed * slope) / (more - speed * slope);
}
