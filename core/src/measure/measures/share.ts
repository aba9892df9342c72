/** What each link adds to the speed of the striking end. */
import { sided, type SidedPart } from '../../foundation/body/landmarks';
import { decompose, PARTS, type Chain, type Moving, type Part } from '../chain/decompose';
import { PART_OF_LINK } from '../chain/verdict';
import { dot, minus, type Vector } from '../../foundation/geometry/vector';
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
import { runTogether } from './run';

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
 * The parts of the striking end's speed at contact, along the strike's direction, that come from
 * each link: m/s, and together the whole speed. Needs the ground plane: 3D, or from above, where
 * the vertical drive is not seen.
 *
 * σ joins the points' noise, the scale, and what rigid links leave unexplained: that is doubt about
 * every one of them.
 */
export function shares(context: MeasureContext): Shares | Absent {
  const lacking = unseen(context);
  if (lacking) return lacking;
  const found = runTogether(context, (probe) => {
    requireSureContact(probe);
    const chain = chainOf(probe, probe.event('contact'));
    return decompose(chain, direction(probe)) as Record<Part, number>;
  });
  if ('absent' in found) return found;
  const { value, spread, trace } = found;
  return readingsFrom(context, 'm/s', { value, spread, frames: [...trace.frames] });
}

/** Instants of the accelerate phase at which the parts are added up (Simpson's rule). */
const NODES = 4;

/**
 * The same over the whole accelerate phase: how far each link has carried the striking end along
 * the strike's direction, metres; together its travel.
 */
export function travels(context: MeasureContext): Shares | Absent {
  const isBowed = context.motion.view === 'above' && context.strike.technique.family === 'hook';
  const lacking = isBowed
    ? absent('A view from above does not show the whole way of a hook; two cameras would.')
    : unseen(context);
  if (lacking) return lacking;
  const whole = runTogether(context, (probe) => {
    const [from, to] = [probe.event('trunk'), probe.event('contact')];
    return { way: dot(minus(probe.at('end', to), probe.at('end', from)), direction(probe)) };
  });
  if ('absent' in whole) return whole;
  const { probe } = whole;
  const [from, to, along] = [probe.event('trunk'), probe.event('contact'), direction(probe)];
  const step = (to.time - from.time) / NODES;
  const value: Parts = {};
  const variance: Parts = {};
  // Noise at one instant says nothing of another, so each is looked at by itself.
  for (let i = 0; i <= NODES; i++) {
    const when = i === NODES ? to : between(`accelerate ${i}`, from.time + i * step);
    const weight = (step / 3) * (i === 0 || i === NODES ? 1 : i % 2 === 1 ? 4 : 2);
    const node = runTogether(context, decomposedAt(when, along));
    if ('absent' in node) return node;
    for (const part of Object.keys(node.value) as Part[]) {
      value[part] = (value[part] ?? 0) + weight * node.value[part];
      variance[part] = (variance[part] ?? 0) + (weight * node.spread[part]) ** 2;
    }
  }
  // What a handful of instants misses of the whole way belongs to no link.
  const explained = Object.values(value).reduce((sum, one) => sum + one, 0);
  value.other = (value.other ?? 0) + whole.value.way - explained;
  const spread = Object.fromEntries(
    Object.entries(variance).map(([part, one]) => [part, Math.sqrt(one)]),
  );
  return readingsFrom(context, 'm', { value, spread, frames: [...whole.trace.frames] });
}

type Parts = Partial<Record<Part, number>>;

const between = (label: string, time: number): Instant => ({ label, event: null, time, shift: 0 });

function decomposedAt(when: Instant, along: Vector): (probe: MeasureProbe) => Record<Part, number> {
  return (probe) => decompose(chainOf(probe, when), along) as Record<Part, number>;
}

function readingsFrom(
  context: MeasureContext,
  unit: Unit,
  { value, spread, frames }: { value: Parts; spread: Parts; frames: readonly number[] },
): Shares {
  const { motion } = context;
  const whole = Object.values(value).reduce((sum, one) => sum + one, 0);
  const parts = partsOf(context.strike.technique).map((part) => {
    if (part === 'drive' && !motion.axes.includes('up')) {
      return [
        part,
        absent('A view from above cannot show the vertical drive; film from the side.'),
      ] as const;
    }
    const sigma = Math.hypot(spread[part]!, motion.planeSigma * whole, value.other!);
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

/** Out of one look, so that what the points' noise does to pelvis and trunk together counts once. */
export function portions(context: MeasureContext): Readonly<Record<PortionId, Measured>> {
  const ids = Object.keys(PORTIONS) as PortionId[];
  const all = (what: (id: PortionId) => Measured) =>
    Object.fromEntries(ids.map((id) => [id, what(id)])) as Record<PortionId, Measured>;
  const { motion, strike } = context;
  const lacking = unseen(context);
  if (lacking) return all(() => lacking);
  const isShown = (id: PortionId) =>
    id === 'portion.rise' ? motion.axes.includes('up') : id === 'portion.step' || hasTrunk;
  const hasTrunk = strike.technique.chain.includes('trunk');
  const found = runTogether(context, (probe) => {
    requireSureContact(probe);
    const parts = decompose(chainOf(probe, probe.event('contact')), direction(probe));
    const whole = Object.values(parts).reduce((sum, one) => sum + one, 0);
    const value = (id: PortionId) => (isShown(id) ? PORTION[id](parts) / whole : 0);
    return Object.fromEntries([
      ...ids.map((id) => [id, value(id)] as const),
      ['other', parts.other! / whole],
    ]) as Record<PortionId | 'other', number>;
  });
  if ('absent' in found) return all(() => found);
  const { value, spread, trace } = found;
  return all((id) => {
    if (!isShown(id)) {
      return hasTrunk
        ? absent('A view from above cannot show the vertical drive; film from the side.')
        : { absent: 'This strike has no such link.', isNotApplicable: true };
    }
    // What no rigid link explains is doubt about each of them.
    const sigma = Math.hypot(spread[id], motion.planeSigma, value.other);
    return reading(value[id], 'ratio', sigma, motion.source, [...trace.frames]);
  });
}
