/**
 * Every link's verdict: it drives the strike, is neutral, or drags on it. By what it did over the whole
 * acceleration, never by its share of the speed at contact alone: by then a sound pelvis and trunk have
 * given their speed away. A foot and a knee that anchor the strike drive it by not giving way.
 */
import { halfWidth, isAbsent, type Measured, type Reading } from '../../foundation/reading/reading';
import type { Link } from '../../foundation/technique/techniques';
import type { Part } from './decompose';

export type Verdict = 'drives' | 'neutral' | 'drags';

export interface LinkVerdict {
  /** How far it carried the striking end, metres; of an anchor, how far it gave way. */
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

/** A link that carries less than this share of the way is neutral. */
const LEAST = 0.03;
/** A part is neutral only where it is known to be no more than this share of the way. */
const MOST_NEUTRAL = 0.15;
/** An anchor that gives way by more than this drags: metres for the foot, radians for the knee. */
const HOLDS = { feet: 0.05, knees: (10 * Math.PI) / 180 };

/**
 * How far the support foot slides and by how much the support knee bends, from the start of the hips to
 * contact; what is not there to hold is left out.
 */
export type Anchors = Readonly<Partial<Record<'feet' | 'knees', Measured>>>;

/**
 * @param travels how far each link has carried the striking end, see `travels` of the measures
 * @returns a verdict for every link of which enough is known to give one
 */
export function verdicts(
  travels: Readonly<Partial<Record<Part, Measured>>>,
  anchors: Anchors,
): Partial<Record<Link, LinkVerdict>> {
  return { ...carrying(travels), ...anchored(anchors) };
}

function anchored(anchors: Anchors): Partial<Record<Link, LinkVerdict>> {
  const found: Partial<Record<Link, LinkVerdict>> = {};
  for (const link of ['feet', 'knees'] as const) {
    const share = anchors[link];
    if (!share || isAbsent(share)) continue;
    const [spread, most] = [halfWidth(share), HOLDS[link]];
    if (share.value - spread > most) found[link] = { share, verdict: 'drags' };
    // A knee that straightens pushes, and is told by what it carries.
    else if (Math.abs(share.value) + spread <= most) found[link] = { share, verdict: 'drives' };
  }
  return found;
}

function carrying(
  travels: Readonly<Partial<Record<Part, Measured>>>,
): Partial<Record<Link, LinkVerdict>> {
  const found: Partial<Record<Link, LinkVerdict>> = {};
  const known = Object.values(travels).filter((one): one is Reading => !isAbsent(one));
  const whole = Math.abs(known.reduce((sum, one) => sum + one.value, 0));
  for (const [link, part] of Object.entries(PART_OF_LINK) as [Link, Part][]) {
    const share = travels[part];
    if (!share || isAbsent(share)) continue;
    const isBeyond = Math.abs(share.value) > Math.max(halfWidth(share), LEAST * whole);
    if (!isBeyond && Math.abs(share.value) + halfWidth(share) > MOST_NEUTRAL * whole) continue;
    found[link] = { share, verdict: !isBeyond ? 'neutral' : share.value > 0 ? 'drives' : 'drags' };
  }
  return found;
}
