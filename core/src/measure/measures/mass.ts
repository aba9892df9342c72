/** Momentum and energy of the whole body: estimates from tables of body segments. */
import {
  BODY_PARTS,
  segmentPlaces,
  type BodyPart,
  type SegmentPlace,
} from '../../foundation/body/centre';
import { DEMPSTER } from '../../foundation/body/segments';
import { cross, distance, dot, length, minus, scaled } from '../../foundation/geometry/vector';
import {
  absent,
  isAbsent,
  reading,
  type Absent,
  type Measured,
} from '../../foundation/reading/reading';
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

function bodyMass(probe: MeasureProbe): number {
  const { mass } = probe.context.body;
  if (mass !== null) return mass;
  throw new MissingInput(absent('Enter the student’s body mass.'));
}

/** Momentum of the whole body along the strike's direction: mass × its centre's velocity. */
function momentum(probe: MeasureProbe): number {
  return bodyMass(probe) * dot(probe.velocity('mass', probe.event('contact')), direction(probe));
}

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

/** Kinetic energy of one part of the body at contact. */
function energyOf(probe: MeasureProbe, part: BodyPart): number {
  const when = probe.event('contact');
  const total = bodyMass(probe);
  const rates = segmentPlaces((landmark) => probe.velocity(landmark, when), part);
  return segmentPlaces((landmark) => probe.at(landmark, when), part)
    .map((place, i) => segmentEnergy(place, rates[i]!, total * place.mass))
    .reduce((sum, one) => sum + one, 0);
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
  energy: { name: 'Kinetic energy of the body (estimate)' },
  'energy.limb': { name: 'Kinetic energy of the striking limb (estimate)' },
} as const;

/**
 * Both energies, part by part of the body. What noise of a shoulder or a hip does to the trunk and to its limb
 * counts as if it were two: little, beside how far people differ from a table.
 */
export function energyReadings(context: MeasureContext): Record<keyof typeof ENERGY, Measured> {
  const both = (lacking: Absent) => ({ energy: lacking, 'energy.limb': lacking });
  const shown = motionShowing(context, { needs: 'space', name: ESTIMATE.shows });
  if (isAbsent(shown)) return both(shown);
  const { striking } = context.motion;
  const limb = context.strike.technique.family === 'kick' ? 'Leg' : 'Arm';
  const sum = { body: 0, limb: 0, bodySquare: 0, limbSpread: 0 };
  const frames = new Set<number>();
  for (const part of BODY_PARTS) {
    const found = runTogether(context, (probe) => ({ energy: energyOf(probe, part) }));
    if ('absent' in found) return both(found);
    const { value, spread, trace } = found;
    sum.body += value.energy;
    sum.bodySquare += spread.energy ** 2;
    if (part === `${striking}${limb}`) [sum.limb, sum.limbSpread] = [value.energy, spread.energy];
    for (const frame of trace.frames) frames.add(frame);
  }
  const joules = (value: number, spread: number) =>
    reading(value, 'J', Math.hypot(spread, TABLE_SIGMA * value), context.motion.source, [
      ...frames,
    ]);
  return {
    energy: joules(sum.body, Math.sqrt(sum.bodySquare)),
    'energy.limb': joules(sum.limb, sum.limbSpread),
  };
}
