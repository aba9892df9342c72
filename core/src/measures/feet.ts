/** What feet and knees do while the strike goes: one turns, the other holds. */
import { distance } from '../geometry/vector';
import { foot } from './balance';
import { footTurn, kneeAngle } from './stance';
import type { Instant, Look } from './look';
import type { Measure } from './run';

const TURNS = {
  unit: 'rad',
  needs: 'ground',
  shows: 'the turn of the feet',
  isMetric: false,
} as const;
const HEEL = { unit: 'm', needs: 'up', shows: 'the heel', isMetric: true } as const;
const ANCHOR = { needs: 'ground', shows: 'the support foot', isMetric: true } as const;

const anchorSide = (look: Look) => (look.motion.striking === 'right' ? 'left' : 'right');

/** When the support foot is set: as seen, else as the hips start. */
function set(look: Look): Instant {
  return look.has('anchorSet') ? look.event('anchorSet') : look.event('hips');
}

function pivot(look: Look, side: 'left' | 'right'): number {
  return footTurn(look, side, look.event('ready'), look.event('contact'));
}

/** Heel over toe at contact. */
function heel(look: Look, side: 'left' | 'right'): number {
  const when = look.event('contact');
  return look.at(`${side}Heel`, when)[1]! - look.at(`${side}Toe`, when)[1]!;
}

/**
 * How far the knee lies inside the line from hip to ankle at contact, seen from the front;
 * positive = caved in toward the other leg.
 */
function cave(look: Look, side: 'left' | 'right'): number {
  const when = look.event('contact');
  const [hip, knee, ankle] = (['Hip', 'Knee', 'Ankle'] as const).map((part) =>
    look.at(`${side}${part}`, when),
  ) as [readonly number[], readonly number[], readonly number[]];
  const inward = side === 'left' ? 1 : -1;
  const share = (knee[1]! - ankle[1]!) / (hip[1]! - ankle[1]!);
  return inward * (knee[2]! - (ankle[2]! + share * (hip[2]! - ankle[2]!)));
}

export const FEET = [
  { ...TURNS, id: 'pivot.lead', name: 'Lead foot turns', value: (look) => pivot(look, 'left') },
  { ...TURNS, id: 'pivot.rear', name: 'Rear foot turns', value: (look) => pivot(look, 'right') },
  { ...HEEL, id: 'heel.lead', name: 'Lead heel at contact', value: (look) => heel(look, 'left') },
  { ...HEEL, id: 'heel.rear', name: 'Rear heel at contact', value: (look) => heel(look, 'right') },
  {
    unit: 'm',
    needs: 'upright',
    shows: 'a knee caving in',
    isMetric: true,
    id: 'cave.lead',
    name: 'Lead knee inside its line',
    value: (look) => cave(look, 'left'),
  },
  {
    unit: 'm',
    needs: 'upright',
    shows: 'a knee caving in',
    isMetric: true,
    id: 'cave.rear',
    name: 'Rear knee inside its line',
    value: (look) => cave(look, 'right'),
  },
  {
    unit: 'rad',
    needs: 'space',
    shows: 'the bend of the knees',
    isMetric: false,
    id: 'anchor.knee',
    name: 'Support knee gives, set to contact',
    value: (look) =>
      kneeAngle(look, anchorSide(look), set(look)) -
      kneeAngle(look, anchorSide(look), look.event('contact')),
  },
  {
    ...ANCHOR,
    unit: 'rad',
    isMetric: false,
    id: 'anchor.foot',
    name: 'Support foot turns, set to contact',
    value: (look) => footTurn(look, anchorSide(look), set(look), look.event('contact')),
  },
  {
    ...ANCHOR,
    unit: 'm',
    id: 'anchor.travel',
    name: 'Support foot slides, set to contact',
    value: (look) =>
      distance(
        foot(look, anchorSide(look), set(look)),
        foot(look, anchorSide(look), look.event('contact')),
      ),
  },
  {
    unit: 'rad',
    needs: 'space',
    shows: 'the bend of the knees',
    isMetric: false,
    id: 'knee.support',
    name: 'Support knee at contact',
    value: (look) => kneeAngle(look, anchorSide(look), look.event('contact')),
  },
] as const satisfies readonly Measure[];
