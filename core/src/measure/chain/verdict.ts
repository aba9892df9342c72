/** Every link's verdict: it drives the strike, is neutral, or drags on it. */
import { halfWidth, isAbsent, type Measured, type Reading } from '../../foundation/reading/reading';
import type { Link } from '../../foundation/technique/techniques';
import type { Part } from './decompose';

export type Verdict = 'drives' | 'neutral' | 'drags';

export interface LinkVerdict {
  readonly share: Reading;
  readonly verdict: Verdict;
}

/** The part of the speed that is each link's own. */
export const PART_OF_LINK: Readonly<Record<Link, Exclude<Part, 'other'>>> = {
  feet: 'step',
  knees: 'drive',
  pelvis: 'pelvis',
  trunk: 'trunk',
  shoulder: 'shoulder',
  elbow: 'elbow',
  fist: 'wrist',
  thigh: 'thigh',
  shank: 'shank',
  foot: 'foot',
};

/** A link that adds less than this share of the speed is neutral. */
const LEAST = 0.03;
/** A share within its ± means "neutral" only when the ± itself is no more than this of the speed. */
const SURE = 0.2;

/**
 * @param speed fist speed at contact
 * @returns a verdict for every link whose share is known well enough to give one
 */
export function verdicts(
  shares: Readonly<Partial<Record<Part, Measured>>>,
  speed: Measured,
): Partial<Record<Link, LinkVerdict>> {
  const found: Partial<Record<Link, LinkVerdict>> = {};
  if (isAbsent(speed)) return found;
  for (const [link, part] of Object.entries(PART_OF_LINK) as [Link, Part][]) {
    const share = shares[part];
    if (!share || isAbsent(share)) continue;
    const whole = Math.abs(speed.value);
    const isBeyond = Math.abs(share.value) > Math.max(halfWidth(share), LEAST * whole);
    if (!isBeyond && halfWidth(share) > SURE * whole) continue;
    found[link] = { share, verdict: !isBeyond ? 'neutral' : share.value > 0 ? 'drives' : 'drags' };
  }
  return found;
}
