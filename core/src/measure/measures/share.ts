/** What each link adds to the speed of the striking end. */
import { sided, type SidedPart } from '../../foundation/body/landmarks';
import { decompose, PARTS, type Chain, type Moving, type Part } from '../chain/decompose';
import { PART_OF_LINK } from '../chain/verdict';
import { length, scaled, type Vector } from '../../foundation/geometry/vector';
import {
  absent,
  isAbsent,
  reading,
  type Absent,
  type Measured,
  type Unit,
} from '../../foundation/reading/reading';
import type { Link, Technique } from '../../foundation/technique/techniques';
import { motionShowing, type MeasureContext } from './context';
import type { Instant, MeasureProbe } from './probe';
import { direction, endVelocity, requireSureContact } from './path';
import { runAlong, runTogether } from './run';

export type Shares = Readonly<Partial<Record<Part, Measured>>>;

/** The joint in which each link of a limb turns. */
const JOINT: Partial<Record<Link, SidedPart>> = {
  shoulder: 'Shoulder',
  elbow: 'Elbow',
  fist: 'Wrist',
  thigh: 'Hip',
  shank: 'Knee',
  foot: 'Ankle',
};

/** The parts a technique's speed is made of. */
export function partsOf({ chain }: Technique): Part[] {
  const own = chain.map((link) => PART_OF_LINK[link]);
  return PARTS.filter((part) => part === 'other' || (own as Part[]).includes(part));
}

function chainOf(probe: MeasureProbe, when: Instant): Chain {
  const moving = (point: Parameters<MeasureProbe['at']>[0]): Moving => ({
    at: probe.at(point, when),
    velocity: point === 'end' ? endVelocity(probe, when) : probe.velocity(point, when),
  });
  const { chain } = probe.strike.technique;
  return {
    hips: [moving('leftHip'), moving('rightHip')],
    shoulders: chain.includes('trunk') ? [moving('leftShoulder'), moving('rightShoulder')] : null,
    limb: chain.flatMap((link) => {
      const joint = JOINT[link];
      return joint
        ? [[PART_OF_LINK[link], moving(sided(probe.motion.striking, joint))] as const]
        : [];
    }),
    end: moving('end'),
  };
}

/**
 * Why there can be no shares at all, or null. From above, limbs that also rise and fall look shorter than they
 * are: a straight's and a hook's hardly do.
 */
function unseen(context: MeasureContext): Absent | null {
  const { technique } = context.strike;
  const isFlat = technique.family === 'straight' || technique.family === 'hook';
  if (context.motion.view === 'above' && !isFlat) {
    return absent(
      `A view from above cannot show what each link adds to a ${technique.name.toLowerCase()}; two cameras would.`,
    );
  }
  const motion = motionShowing(context, { needs: 'ground', name: 'what each link adds' });
  if (isAbsent(motion)) return motion;
  return motion.metric ? null : absent('Set the scale from a known length.');
}

/**
 * The same over the whole acceleration, from the first start to contact: how far each link has carried
 * the striking end, metres; together its travel. Toward the target; a strike that goes a way of its own
 * is followed along that way.
 */
export function travels(context: MeasureContext): Shares | Absent {
  const { technique } = context.strike;
  const isBowed = context.motion.view === 'above' && technique.family === 'hook';
  const lacking = isBowed
    ? absent('A view from above does not show the whole way of a hook; two cameras would.')
    : unseen(context);
  if (lacking) return lacking;
  const found = runAlong(
    context,
    (probe) => {
      requireSureContact(probe);
      // Where the way is not shown there is nothing to add up.
      direction(probe);
      return [firstStart(probe), probe.event('contact')];
    },
    (probe, when) => {
      const along = technique.along === 'path' ? wayAt(probe, when) : direction(probe);
      return decompose(chainOf(probe, when), along) as Record<Part, number>;
    },
  );
  if ('absent' in found) return found;
  const { value, spread, trace } = found;
  const whole = Object.values(value).reduce((sum, one) => sum + one, 0);
  return readingsFrom(context, 'm', { value, spread, whole, frames: [...trace.frames] });
}

function firstStart(probe: MeasureProbe): Instant {
  const trunk = probe.event('trunk');
  const hips = probe.has('hips') ? probe.event('hips') : trunk;
  return hips.time < trunk.time ? hips : trunk;
}

function wayAt(probe: MeasureProbe, when: Instant): Vector {
  const velocity = endVelocity(probe, when);
  return scaled(velocity, 1 / (length(velocity) || 1));
}

type Parts = Partial<Record<Part, number>>;

function readingsFrom(
  context: MeasureContext,
  unit: Unit,
  {
    value,
    spread,
    whole,
    frames,
  }: { value: Parts; spread: Parts; whole: number; frames: readonly number[] },
): Shares {
  const { motion } = context;
  const parts = partsOf(context.strike.technique).map((part) => {
    if (part === 'drive' && !motion.axes.includes('up')) {
      return [
        part,
        absent('A view from above cannot show the vertical drive; film from the side.'),
      ] as const;
    }
    // What no rigid link explains may belong to any of them: a rectangle of that half-width (GUM, 4.3.7).
    const sigma = Math.hypot(spread[part]!, motion.planeSigma * whole, value.other! / Math.sqrt(3));
    return [part, reading(value[part]!, unit, sigma, motion.source, frames)] as const;
  });
  return Object.fromEntries(parts);
}

/** Parts of the speed that faults are judged by, as shares of the whole. */
export const PORTIONS = {
  'portion.body': 'Share of the speed from pelvis and trunk',
  'portion.rise': 'Share of the speed from rising or dropping',
  'portion.step': 'Share of the speed from the step',
  'portion.scoop': 'Shoulder’s share over the trunk’s',
} as const;

export type PortionId = keyof typeof PORTIONS;

const PORTION: Readonly<Record<PortionId, (parts: Parts) => number>> = {
  'portion.body': (parts) => parts.pelvis! + parts.trunk!,
  'portion.rise': (parts) => parts.drive!,
  'portion.step': (parts) => parts.step!,
  'portion.scoop': (parts) => parts.shoulder! - parts.trunk!,
};

/**
 * What the striking end's speed at contact is made of, along the strike's direction.
 *
 * `shares`: the parts that come from each link, m/s, and together the whole speed. σ joins the points'
 * noise, the scale, and what rigid links leave unexplained: that is doubt about every one of them.
 * `portions`: some of them ÷ the whole, out of the same look, so that what the points' noise does to pelvis
 * and trunk together counts once.
 *
 * Needs the ground plane: 3D, or from above, where the vertical drive is not seen.
 */
export function speedParts(context: MeasureContext): {
  readonly shares: Shares | Absent;
  readonly portions: Readonly<Record<PortionId, Measured>>;
} {
  const { motion, strike } = context;
  const neither = (lacking: Absent) => ({ shares: lacking, portions: eachPortion(() => lacking) });
  const lacking = unseen(context);
  if (lacking) return neither(lacking);
  const hasTrunk = strike.technique.chain.includes('trunk');
  const isShown = (id: PortionId) =>
    id === 'portion.rise' ? motion.axes.includes('up') : id === 'portion.step' || hasTrunk;
  const found = runTogether(context, (probe) => {
    requireSureContact(probe);
    const parts = decompose(chainOf(probe, probe.event('contact')), direction(probe));
    const whole = Object.values(parts).reduce((sum, one) => sum + one, 0);
    const portion = (id: PortionId) => (isShown(id) ? PORTION[id](parts) / whole : 0);
    return { ...(parts as Record<Part, number>), ...eachPortion(portion) };
  });
  if ('absent' in found) return neither(found);
  const { value, spread, trace } = found;
  const frames = [...trace.frames];
  const whole = PARTS.reduce((sum, part) => sum + (value[part] ?? 0), 0);
  return {
    shares: readingsFrom(context, 'm/s', { value, spread, whole, frames }),
    portions: eachPortion((id) => {
      if (!isShown(id)) {
        return hasTrunk
          ? absent('A view from above cannot show the vertical drive; film from the side.')
          : { absent: 'This strike has no such link.', isNotApplicable: true };
      }
      // What no rigid link explains is doubt about each of them.
      const sigma = Math.hypot(spread[id], motion.planeSigma, value.other / whole);
      return reading(value[id], 'ratio', sigma, motion.source, frames);
    }),
  };
}

function eachPortion<T>(what: (id: PortionId) => T): Record<PortionId, T> {
  const ids = Object.keys(PORTIONS) as PortionId[];
  return Object.fromEntries(ids.map((id) => [id, what(id)])) as Record<PortionId, T>;
}
