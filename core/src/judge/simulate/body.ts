/** The chain of a student's own body for a technique, before it is fitted to a strike. */
import { DEMPSTER, SEGMENT_LENGTH } from '../../foundation/body/segments';
import type { Technique } from '../../foundation/technique/techniques';
import type { Link } from './chain';
import type { Joint, Model } from './strike';

export interface Person {
  /** Metres and kilograms. */
  readonly height: number;
  readonly mass: number;
}

const degrees = (value: number) => (value * Math.PI) / 180;

/**
 * Radius of gyration of pelvis and of the trunk above it about the spine, as shares of the height:
 * half the breadth of the hips and of the shoulders, nearly filled (rough; no source).
 */
const GYRATION = { pelvis: 0.07, trunk: 0.085 };
/** Share of the trunk's mass below the waist; the thighs that turn along are counted with it. */
const PELVIS_SHARE = 0.28;

type Limb = readonly (readonly [
  string,
  'upperArm' | 'forearm' | 'hand' | 'thigh' | 'shank' | 'foot',
])[];

/** Links that make one: a hand is stiff on its forearm, a foot on its shank. */
function limbLink(name: string, parts: readonly Limb[number][1][], { height, mass }: Person): Link {
  let [length, total, moment] = [0, 0, 0];
  const places = parts.map((part) => {
    // Half an open hand is a fist; a foot at its shank is drawn out.
    const long = SEGMENT_LENGTH[part] * height * (part === 'hand' || part === 'foot' ? 0.5 : 1);
    const own = DEMPSTER[part].mass * mass;
    const at = length + DEMPSTER[part].centre * long;
    length += long;
    total += own;
    moment += own * at;
    return { own, at, long, gyration: DEMPSTER[part].gyration };
  });
  const centre = moment / total;
  const inertia = places.reduce(
    (sum, { own, at, long, gyration }) => sum + own * ((at - centre) ** 2 + (gyration * long) ** 2),
    0,
  );
  return { name, length, mass: total, centre, inertia };
}

function turning(name: string, mass: number, gyration: number, length: number): Link {
  return { name, length, mass, centre: 0, inertia: mass * gyration ** 2 };
}

const JOINT = { sign: 1, onset: 0, fastest: 14, hold: 60, isHeld: false, range: 3 } as const;

/** Techniques that a chain which turns about the upright can stand for. */
export function isModelled({ family, start, along }: Technique): boolean {
  if (family === 'straight' || family === 'hook') return true;
  return (family === 'elbow' && start === 'turn') || (family === 'kick' && along === 'path');
}

/** Inner angle at which an elbow is carried in a hook, and a knee in a kick, where nothing says otherwise. */
export const CARRIED = { hook: degrees(90), kick: degrees(70) };

/**
 * @param yaw of the hips' line in guard from square, radians, the striking side back
 * @param bend inner angle at which the last joint is carried (hook) or drawn up (kick), radians; null = as usual
 * @returns a model with torques of an ordinary body, all called at once
 */
export function bodyModel(
  technique: Technique,
  person: Person,
  yaw: number,
  bend: number | null = null,
): Model {
  const { height, mass } = person;
  const { family } = technique;
  const trunkMass = DEMPSTER.trunk.mass * mass;
  const pelvis = (length: number) =>
    turning('pelvis', PELVIS_SHARE * trunkMass + 0.2 * mass, GYRATION.pelvis * height, length);
  const along = technique.along === 'target' ? ('line' as const) : ('path' as const);
  const common = { along, step: 0, give: 0 };
  const strong = mass / 70;
  const joint = (torque: number, change: Partial<Joint> = {}): Joint => ({
    ...JOINT,
    torque: torque * strong,
    ...change,
  });
  // The striking side points away from the target by a right angle and the yaw.
  const side = -degrees(90) - yaw;
  if (family === 'kick') {
    const folded = Math.PI - (bend ?? CARRIED.kick);
    const links = [
      pelvis(SEGMENT_LENGTH.hipHalfBreadth * 0.65 * height),
      limbLink('thigh', ['thigh'], person),
      limbLink('shank', ['shank', 'foot'], person),
    ];
    return {
      ...common,
      links,
      joints: [
        joint(140, { fastest: 11 }),
        joint(170, { fastest: 16, hold: 120 }),
        joint(90, { fastest: 26, hold: 60, range: folded }),
      ],
      guard: [side, degrees(-75), degrees(-75) - folded],
      root: 1,
      meets: { at: 'turn', angle: degrees(65) },
    };
  }
  const trunk = turning(
    'trunk',
    (1 - PELVIS_SHARE) * trunkMass + DEMPSTER.head.mass * mass,
    GYRATION.trunk * height,
    SEGMENT_LENGTH.shoulderHalfBreadth * 0.86 * height,
  );
  const upper = limbLink('shoulder', ['upperArm'], person);
  const body = [
    joint(120, { fastest: 11, range: degrees(70) }),
    joint(85, { fastest: 13, hold: 140, range: degrees(40) }),
  ];
  if (family === 'elbow') {
    return {
      ...common,
      links: [pelvis(0), trunk, { ...upper, mass: upper.mass + 0.022 * mass }],
      joints: [...body, joint(40, { fastest: 18, hold: 30, range: degrees(130) })],
      guard: [side, side, side + degrees(25)],
      root: 2,
      meets: { at: 'turn', angle: degrees(50) },
    };
  }
  const lower = limbLink('elbow', ['forearm', 'hand'], person);
  const links = [pelvis(0), trunk, upper, lower];
  if (family === 'hook') {
    return {
      ...common,
      links,
      joints: [
        ...body,
        joint(45, { fastest: 18, hold: 40, range: degrees(70) }),
        joint(0, { isHeld: true, hold: 45 }),
      ],
      guard: [side, side, side + degrees(35), side + degrees(215) - (bend ?? CARRIED.hook)],
      root: 2,
      meets: { at: 'turn', angle: degrees(50) },
    };
  }
  return {
    ...common,
    links,
    joints: [
      ...body,
      joint(50, { fastest: 18, hold: 30 }),
      joint(38, { sign: -1, fastest: 28, hold: 25, range: degrees(150) }),
    ],
    // Folded: the elbow beside the body, the fist on the line to the target.
    guard: [side, side, degrees(-75), degrees(62)],
    root: 2,
    meets: { at: 'reach', share: 0.95 },
  };
}
