/** The stance: in guard before the strike, and again when it is home. */
import { headingOf, wrapped } from '../../foundation/geometry/angles';
import { angleAt, distance, minus } from '../../foundation/geometry/vector';
import { foot } from './balance';
import { flatFoot } from './flatFoot';
import { requireSquare, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';

export function kneeAngle(probe: MeasureProbe, side: 'left' | 'right', when: Instant): number {
  return angleAt(
    probe.at(`${side}Hip`, when),
    probe.at(`${side}Knee`, when),
    probe.at(`${side}Ankle`, when),
  );
}

/** From the lead to the rear foot, over the floor. */
const feet = (probe: MeasureProbe, when: Instant) =>
  minus(foot(probe, 'right', when), foot(probe, 'left', when));

/** Difference in height of the two hips over their distance in the upright plane. */
function level(probe: MeasureProbe, when: Instant): number {
  requireSquare(probe, 'the line of the hips', 'from behind');
  const line = minus(probe.at('rightHip', when), probe.at('leftHip', when));
  return Math.atan2(line[1]!, Math.hypot(line[0]!, line[2]!));
}

/** Shoulders that never turn quite through the picture look narrower, by this share (σ): on strikes of another generator. */
const NARROWER = 0.2;

/** Each is measured at ready and at home. */
const PARTS = {
  length: {
    name: 'Stance length',
    value: (probe, when) => -feet(probe, when)[0]!,
    unit: 'm',
    needs: 'toward',
    shows: 'the length of the stance',
    isMetric: true,
  },
  width: {
    name: 'Stance width ÷ shoulders',
    value: (probe, when) => {
      requireSquare(probe, 'the stance', 'from behind');
      const [left, right] = ['leftShoulder', 'rightShoulder'] as const;
      // One picture shows how wide shoulders are where they turn through it.
      const shoulders =
        probe.motion.view === '3d'
          ? distance(probe.at(left, when), probe.at(right, when))
          : probe.linkLength(left, right);
      return feet(probe, when)[2]! / shoulders;
    },
    doubt: ({ motion }: MeasureProbe, value: number) =>
      motion.view === '3d' ? 0 : NARROWER * value,
    unit: 'ratio',
    needs: 'right',
    shows: 'the width of the stance',
    isMetric: false,
  },
  angle: {
    name: 'Feet’s line against the target line',
    value: (probe, when) => Math.atan2(feet(probe, when)[2]!, -feet(probe, when)[0]!),
    unit: 'rad',
    needs: 'ground',
    shows: 'the angle of the stance',
    isMetric: false,
  },
  toeHeel: {
    name: 'Rear heel beside the line of the lead toe',
    value: (probe, when) => {
      requireSquare(probe, 'the stance', 'from behind');
      return probe.at('rightHeel', when)[2]! - probe.at('leftToe', when)[2]!;
    },
    unit: 'm',
    needs: 'right',
    shows: 'the rails of the stance',
    isMetric: true,
  },
  kneeLead: {
    name: 'Lead knee',
    value: (probe, when) => kneeAngle(probe, 'left', when),
    unit: 'rad',
    needs: 'space',
    shows: 'the bend of the knees',
    isMetric: false,
  },
  kneeRear: {
    name: 'Rear knee',
    value: (probe, when) => kneeAngle(probe, 'right', when),
    unit: 'rad',
    needs: 'space',
    shows: 'the bend of the knees',
    isMetric: false,
  },
  level: {
    name: 'Pelvis off level',
    value: level,
    unit: 'rad',
    needs: 'upright',
    shows: 'the level of the pelvis',
    isMetric: false,
  },
  rearHeel: {
    name: 'Rear heel off the floor',
    value: (probe, when) =>
      probe.at('rightHeel', when)[1]! -
      probe.at('rightToe', when)[1]! -
      flatFoot(probe.motion).rise,
    doubt: ({ motion }: MeasureProbe) => flatFoot(motion).sigma,
    unit: 'm',
    needs: 'up',
    shows: 'the heel',
    isMetric: true,
    sizedBy: 'foot',
  },
  height: {
    name: 'Height of the hips',
    value: (probe, when) =>
      probe.middle('leftHip', 'rightHip', when)[1]! -
      Math.min(foot(probe, 'left', when)[1]!, foot(probe, 'right', when)[1]!),
    unit: 'm',
    needs: 'up',
    shows: 'the height of the stance',
    isMetric: true,
  },
} as const satisfies Record<
  string,
  Omit<Measure, 'id' | 'value'> & { value: (probe: MeasureProbe, when: Instant) => number }
>;

type PartId = keyof typeof PARTS;
type StanceId = `stance.${PartId}` | `stance.${PartId}.home`;

export const STANCE: readonly Measure<StanceId>[] = (Object.keys(PARTS) as PartId[]).flatMap(
  (part) => {
    const { value, ...rest } = PARTS[part];
    return [
      {
        ...rest,
        id: `stance.${part}` as const,
        value: (probe: MeasureProbe) => value(probe, probe.event('ready')),
      },
      {
        ...rest,
        id: `stance.${part}.home` as const,
        name: `${rest.name}, home again`,
        value: (probe: MeasureProbe) => value(probe, probe.event('home')),
      },
    ];
  },
);

/** How far feet and hand stand from where they stood before: distance over what the view shows. */
function back(probe: MeasureProbe, at: (when: Instant) => readonly number[]): number {
  return distance(at(probe.event('ready')), at(probe.event('home')));
}

const RETURN = { unit: 'm', needs: 'any', shows: 'the way home', isMetric: true } as const;

/** How far the two feet have turned and moved; positive turns follow the strike's own turn. */
export function footTurn(
  probe: MeasureProbe,
  side: 'left' | 'right',
  from: Instant,
  to: Instant,
): number {
  const heading = (when: Instant) =>
    headingOf(probe.at(`${side}Heel`, when), probe.at(`${side}Toe`, when));
  return -probe.motion.turnSign * wrapped(heading(to) - heading(from));
}

export const RETURNS = [
  {
    ...RETURN,
    id: 'return.hand',
    name: 'Striking end off its place, home again',
    value: (probe) => back(probe, (when) => probe.at('end', when)),
  },
  {
    ...RETURN,
    id: 'return.footLead',
    name: 'Lead foot off its place, home again',
    value: (probe) => back(probe, (when) => foot(probe, 'left', when)),
  },
  {
    ...RETURN,
    id: 'return.footRear',
    name: 'Rear foot off its place, home again',
    value: (probe) => back(probe, (when) => foot(probe, 'right', when)),
  },
] as const satisfies readonly Measure[];
