/** Where the body's weight is: how far it sinks, how it is spread, whether it stays over the feet. */
import { extrapolated, marginOf, onFloor } from '../../foundation/body/balance';
import { CENTRE_WEIGHTS } from '../../foundation/body/centre';
import { dot, midpoint, minus, type Vector } from '../../foundation/geometry/vector';
import type { Technique } from '../../foundation/technique/techniques';
import type { Path } from '../../reconstruct/motion/motion';
import { isDense } from '../../reconstruct/motion/prepare';
import { LONGEST_GAP } from '../../reconstruct/motion/where';
import { absent } from '../../foundation/reading/reading';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';

const LEVEL = { needs: 'up', shows: 'the level of the body', isMetric: true } as const;

/**
 * Centre of mass; where a picture does not show the whole body all along, as with an arm that is hidden for a while
 * or points placed by hand on a few frames, the middle of the hips, the nearest to it.
 */
export function centre(probe: MeasureProbe, when: Instant): Vector {
  return isWhole(probe) ? probe.at('mass', when) : probe.middle('leftHip', 'rightHip', when);
}

const isWhole = ({ motion }: MeasureProbe) =>
  motion.view === '3d' ||
  WHOLE.every((landmark) => {
    const path = motion.paths[landmark];
    return path !== undefined && isDense(path) && isUnbroken(path);
  });

const isUnbroken = ({ times }: Path) =>
  times.every((time, i) => i === 0 || time - times[i - 1]! <= LONGEST_GAP);

const WHOLE = [...CENTRE_WEIGHTS.keys()];

/**
 * How far the hips' own sinking is off that of the centre of mass, metres, and their place between the feet,
 * as a share of the stance; one standard deviation, on made-up strikes.
 */
const HIPS_STRAY = { level: 0.006, split: 0.05 } as const;

const strays = (what: keyof typeof HIPS_STRAY) => (probe: MeasureProbe) =>
  isWhole(probe) ? 0 : HIPS_STRAY[what];

/** A strike that goes without a load is looked at from this long before its hips, seconds. */
const BEFORE_HIPS = 0.25;

/** The start of the load; where there was none to be seen, a while before the hips; else the guard. */
export function loadFrom(probe: MeasureProbe): Instant {
  if (probe.has('load')) return probe.event('load');
  const isGuardAllThatIsSeen = !probe.has('hips') && probe.has('ready');
  return isGuardAllThatIsSeen ? probe.event('ready') : probe.event('hips', -BEFORE_HIPS);
}

/** The start of the hips; where they do not start, of the trunk. */
function working(probe: MeasureProbe): Instant {
  return !probe.has('hips') && probe.has('trunk') ? probe.event('trunk') : probe.event('hips');
}

/** How far the centre goes down between the start of the load and the start of the hips. */
function sink(probe: MeasureProbe): number {
  const from = loadFrom(probe);
  const lowest = probe.most(
    'lowest',
    from,
    probe.event('hips'),
    'rightHip',
    (l, when) => -centre(l, when)[1]!,
  );
  return centre(probe, from)[1]! - centre(probe, lowest)[1]!;
}

function heightOf(probe: MeasureProbe): number {
  const { height } = probe.context.body;
  if (height !== null) return height;
  throw new MissingInput(absent('Enter the student’s height.'));
}

/** Middle of a foot, from heel to toe. */
export function foot(probe: MeasureProbe, side: 'left' | 'right', when: Instant): Vector {
  return probe.middle(`${side}Heel`, `${side}Toe`, when);
}

/**
 * Share of the weight over the rear foot, from where the centre lies between the feet. A static
 * estimate: it holds while nothing is accelerated.
 */
function split(probe: MeasureProbe): number {
  const when = probe.event('ready');
  const [lead, rear, mass] = [
    foot(probe, 'left', when),
    foot(probe, 'right', when),
    centre(probe, when),
  ];
  const feet = onFloor(minus(rear, lead));
  const offset = onFloor(minus(mass, lead));
  return (feet[0] * offset[0] + feet[1] * offset[1]) / (feet[0] ** 2 + feet[1] ** 2);
}

/**
 * The line of the feet goes some 20 to 35° off the line to the target: the square of its cosine, about which a
 * weight that goes straight at the target counts along it; one standard deviation as a share (Sinew's own).
 */
const ALONG = { share: 0.8, sigma: 0.12 } as const;
/** What the side does not see: where across the feet the weight is, and how far it goes there; shares of the stance. */
const ACROSS = { place: 0.045, way: 0.025 } as const;

const isFromAside = ({ motion }: MeasureProbe) => !motion.axes.includes('right');

/**
 * Where the centre is between the feet: 0 over the rear one, 1 over the lead one. Seen from the side, along the
 * line to the target, and as if it were half-way across.
 */
function between(probe: MeasureProbe, when: Instant): number {
  const isFlat = isFromAside(probe);
  const [lead, rear, mass] = [
    foot(probe, 'left', when),
    foot(probe, 'right', when),
    centre(probe, when),
  ].map((point) => (isFlat ? [point[0]!, 0] : onFloor(point)));
  const line = minus(lead!, rear!);
  const place = dot(minus(mass!, rear!), line) / dot(line, line);
  return isFlat ? 0.5 + ALONG.share * (place - 0.5) : place;
}

const SHIFT = {
  unit: 'ratio',
  needs: 'toward',
  shows: 'the weight between the feet',
  isMetric: false,
  // A kick leaves nothing to be between.
  of: ({ family }: Technique) => family !== 'kick',
} as const;

/** Doubt of a place between the feet, and of a way from one to another. */
const placed = (probe: MeasureProbe, value: number) =>
  isFromAside(probe)
    ? Math.hypot(strays('split')(probe), ALONG.sigma * Math.abs(value - 0.5), ACROSS.place)
    : strays('split')(probe);
const gone = (probe: MeasureProbe, value: number) =>
  isFromAside(probe)
    ? Math.hypot(strays('split')(probe), ALONG.sigma * Math.abs(value), ACROSS.way)
    : strays('split')(probe);

/** Angle of a line from the vertical toward the target. */
const leanOf = (from: Vector, to: Vector) => Math.atan2(to[0]! - from[0]!, to[1]! - from[1]!);

/**
 * Where a body tracker guesses in space, a head is off its feet along the line of sight by more than each of them is
 * by itself; radians, one standard deviation, on thirty-five rendered films.
 */
const GUESSED_LEAN = 0.07;

function lean(probe: MeasureProbe): number {
  const when = probe.event('contact');
  const head = probe.middle('leftEar', 'rightEar', when);
  return leanOf(midpoint(foot(probe, 'left', when), foot(probe, 'right', when)), head);
}

/** Higher above the lowest point of the feet than this, a heel or toe carries nothing, metres. */
const TOUCHING = 0.04;

/** Margin of the extrapolated centre of mass inside the feet that stand; negative outside. */
function stability(probe: MeasureProbe, when: Instant): number {
  const corners = (['leftHeel', 'leftToe', 'rightHeel', 'rightToe'] as const).map((one) =>
    probe.at(one, when),
  );
  const floor = Math.min(...corners.map((corner) => corner[1]!));
  const base = corners.filter((corner) => corner[1]! - floor < TOUCHING);
  const mass = centre(probe, when);
  const ahead = extrapolated(
    onFloor(mass),
    onFloor(probe.velocity('mass', when)),
    mass[1]! - floor,
  );
  return marginOf(ahead, base.map(onFloor));
}

const STANDING = {
  unit: 'm',
  needs: 'space',
  shows: 'the balance over the feet',
  isMetric: true,
} as const;

export const BALANCE = [
  {
    ...LEVEL,
    unit: 'm',
    id: 'sink',
    name: 'Sink in the load',
    doubt: strays('level'),
    value: sink,
  },
  {
    ...LEVEL,
    unit: 'ratio',
    id: 'sink.height',
    name: 'Sink ÷ height',
    doubt: (probe) => strays('level')(probe) / heightOf(probe),
    value: (probe) => sink(probe) / heightOf(probe),
  },
  {
    ...LEVEL,
    unit: 'm',
    id: 'rise',
    name: 'Rise from hips’ start to contact',
    doubt: strays('level'),
    value: (probe) =>
      centre(probe, probe.event('contact'))[1]! - centre(probe, probe.event('hips'))[1]!,
  },
  {
    ...LEVEL,
    unit: 'ratio',
    id: 'drop.height',
    name: 'Drop from hips’ start to contact ÷ height',
    doubt: (probe) => strays('level')(probe) / heightOf(probe),
    value: (probe) =>
      (centre(probe, working(probe))[1]! - centre(probe, probe.event('contact'))[1]!) /
      heightOf(probe),
  },
  {
    ...LEVEL,
    unit: 'ratio',
    id: 'rise.first',
    name: 'Rise before the drop ÷ height',
    of: ({ start }) => start === 'drop',
    doubt: (probe) => strays('level')(probe) / heightOf(probe),
    value: (probe) => {
      const from = loadFrom(probe);
      const high = (l: MeasureProbe, when: Instant) => centre(l, when)[1]!;
      const top = probe.most('highest', from, probe.event('contact'), 'rightHip', high);
      return (centre(probe, top)[1]! - centre(probe, from)[1]!) / heightOf(probe);
    },
  },
  {
    unit: 'ratio',
    needs: 'toward',
    shows: 'the travel of the body',
    isMetric: true,
    id: 'body.travel',
    name: 'Body goes toward the target, hips’ start to contact ÷ height',
    of: ({ family }) => family === 'elbow',
    value: (probe) => {
      const hips = (when: Instant) => probe.middle('leftHip', 'rightHip', when)[0]!;
      return (hips(probe.event('contact')) - hips(working(probe))) / heightOf(probe);
    },
  },
  {
    unit: 'm',
    needs: 'toward',
    shows: 'the head over the feet',
    isMetric: true,
    id: 'head.ahead',
    name: 'Head ahead of the lead foot',
    value: (probe) => {
      const when = probe.event('contact');
      return probe.middle('leftEar', 'rightEar', when)[0]! - probe.at('leftToe', when)[0]!;
    },
  },
  {
    unit: 'ratio',
    needs: 'ground',
    shows: 'the weight between the feet',
    isMetric: false,
    id: 'split',
    name: 'Weight on the rear foot (static estimate)',
    doubt: strays('split'),
    value: split,
  },
  {
    ...SHIFT,
    id: 'shift.load',
    name: 'Weight at the load, 0 on the rear foot, 1 on the lead',
    doubt: placed,
    value: (probe) => between(probe, loadFrom(probe)),
  },
  {
    ...SHIFT,
    id: 'shift.contact',
    name: 'Weight at contact, 0 on the rear foot, 1 on the lead',
    doubt: placed,
    value: (probe) => between(probe, probe.event('contact')),
  },
  {
    ...SHIFT,
    id: 'shift.end',
    name: 'Weight at the end, 0 on the rear foot, 1 on the lead',
    doubt: placed,
    value: (probe) => between(probe, probe.event('end')),
  },
  {
    ...SHIFT,
    id: 'shift.travel',
    name: 'Weight goes from rear to lead, load to contact',
    doubt: gone,
    value: (probe) => between(probe, probe.event('contact')) - between(probe, loadFrom(probe)),
  },
  {
    unit: 'rad',
    needs: 'sagittal',
    shows: 'the lean',
    isMetric: false,
    id: 'lean',
    name: 'Lean toward the target at contact',
    doubt: ({ motion }) => (motion.source === 'estimated-3d' ? GUESSED_LEAN : 0),
    value: lean,
  },
  {
    unit: 'rad',
    needs: 'sagittal',
    shows: 'the lean',
    isMetric: false,
    id: 'lean.trunk',
    name: 'Trunk lean toward the target at contact',
    value: (probe) => {
      const when = probe.event('contact');
      return leanOf(
        probe.middle('leftHip', 'rightHip', when),
        probe.middle('leftShoulder', 'rightShoulder', when),
      );
    },
  },
  {
    ...STANDING,
    id: 'stability.contact',
    name: 'Balance margin at contact',
    value: (probe) => stability(probe, probe.event('contact')),
  },
  {
    ...STANDING,
    id: 'stability.home',
    name: 'Balance margin at home',
    value: (probe) => stability(probe, probe.event('home')),
  },
] as const satisfies readonly Measure[];
