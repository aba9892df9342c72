/** Momentum and energy of the whole body: estimates from tables of body segments. */
import { segmentPlaces, type SegmentPlace } from '../../foundation/body/centre';
import { DEMPSTER, type Segment } from '../../foundation/body/segments';
import { cross, distance, dot, length, minus, scaled } from '../../foundation/geometry/vector';
import { absent, isAbsent, reading, type Measured } from '../../foundation/reading/reading';
import { motionShowing, type MeasureContext } from './context';
import { MissingInput, type MeasureProbe } from './probe';
import { direction } from './path';
import { runTogether, type Measure } from './run';

/**
 * How far a person's segments differ from a table's, relative, one standard deviation. Between
 * published tables a limb's mass differs by 10–15 % (compare Dempster's thigh, 10.0 %, with de
 * Leva's, 14.2 %).
 */
const TABLE_SIGMA = 0.12;

/** Segment places and, by the same arithmetic, velocities at contact. */
function moving(probe: MeasureProbe): { places: SegmentPlace[]; rates: SegmentPlace[] } {
  const when = probe.event('contact');
  return {
    places: segmentPlaces((landmark) => probe.at(landmark, when)),
    rates: segmentPlaces((landmark) => probe.velocity(landmark, when)),
  };
}

function bodyMass(probe: MeasureProbe): number {
  const { mass } = probe.context.body;
  if (mass !== null) return mass;
  throw new MissingInput(absent('Enter the student’s body mass.'));
}

/** Momentum of the whole body along the strike's direction: mass × its centre's velocity. */
function momentum(probe: MeasureProbe): number {
  return bodyMass(probe) * dot(probe.velocity('mass', probe.event('contact')), direction(probe));
}

const LIMBS: Readonly<Record<'arm' | 'leg', readonly Segment[]>> = {
  arm: ['upperArm', 'forearm', 'hand'],
  leg: ['thigh', 'shank', 'foot'],
};

/**
 * Kinetic energy of one segment: ½ m v² of its centre, and ½ m (k l)² ω² of its turning about the
 * centre, k the radius of gyration ÷ length l (Winter 2009, ch. 6). Spin about its own length is
 * not seen and small.
 *
 * @param mass kilograms
 */
export function segmentEnergy(place: SegmentPlace, rate: SegmentPlace, mass: number): number {
  const link = minus(place.ends[1], place.ends[0]);
  const long = distance(place.ends[0], place.ends[1]);
  const turning = scaled(cross(link, minus(rate.ends[1], rate.ends[0])), 1 / dot(link, link));
  const gyration = DEMPSTER[place.segment].gyration * long;
  return 0.5 * mass * (length(rate.centre) ** 2 + (gyration * length(turning)) ** 2);
}

/** Kinetic energy of the whole body and of the striking limb. */
function energies(probe: MeasureProbe): { body: number; limb: number } {
  const total = bodyMass(probe);
  const { places, rates } = moving(probe);
  const limb = LIMBS[probe.strike.technique.family === 'kick' ? 'leg' : 'arm'];
  const found = { body: 0, limb: 0 };
  places.forEach((place, i) => {
    const own = segmentEnergy(place, rates[i]!, total * place.mass);
    found.body += own;
    if (place.side === probe.motion.striking && limb.includes(place.segment)) found.limb += own;
  });
  return found;
}

const ESTIMATE = {
  needs: 'space',
  shows: 'the motion of the whole body',
  isMetric: true,
  doubt: (_: MeasureProbe, value: number) => TABLE_SIGMA * Math.abs(value),
} as const;

export const MASS = [
  {
    ...ESTIMATE,
    unit: 'N·s',
    id: 'momentum',
    name: 'Momentum of the body (estimate)',
    value: momentum,
  },
] as const satisfies readonly Measure[];

export const ENERGY = {
  energy: { name: 'Kinetic energy of the body (estimate)', part: 'body' },
  'energy.limb': { name: 'Kinetic energy of the striking limb (estimate)', part: 'limb' },
} as const;

/** Both energies, out of one look. */
export function energyReadings(context: MeasureContext): Record<keyof typeof ENERGY, Measured> {
  const shown = motionShowing(context, { needs: 'space', name: ESTIMATE.shows });
  const found = isAbsent(shown) ? shown : runTogether(context, energies);
  const of = (part: 'body' | 'limb'): Measured => {
    if ('absent' in found) return found;
    const { value, spread, trace } = found;
    const sigma = Math.hypot(spread[part], TABLE_SIGMA * value[part]);
    return reading(value[part], 'J', sigma, context.motion.source, [...trace.frames]);
  };
  return { energy: of('body'), 'energy.limb': of('limb') };
}
