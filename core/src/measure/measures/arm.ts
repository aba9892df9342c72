/** The striking limb itself: its bend, its line, its fist, and how much of its length is used. */
import { deviation, mean } from 'd3-array';
import { between, offLine, wrapped } from '../../foundation/geometry/angles';
import {
  angleAt,
  cross,
  dot,
  distance,
  length,
  midpoint,
  minus,
  scaled,
  type Vector,
} from '../../foundation/geometry/vector';
import { lowerBound } from '../../foundation/signal/interpolate';
import { frameSpacing } from '../../observe/track/track';
import { endLandmark } from '../../reconstruct/motion/where';
import { absent } from '../../foundation/reading/reading';
import type { Technique } from '../../foundation/technique/techniques';
import { filmFrom, viewWords } from './context';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import { TILTED, type Measure } from './run';

/** Seconds before contact over which a hook's angle must hold. */
export const DRIFT_WINDOW = 0.08;

export const isPunch = ({ end }: Technique) => end === 'fist';
const isKick = ({ family }: Technique) => family === 'kick';
const hasShank = (technique: Technique) => isKick(technique) && technique.end !== 'knee';
const isLong = (technique: Technique) => technique.family !== 'elbow' && technique.end !== 'knee';

const BEND = {
  unit: 'rad',
  needs: 'any',
  shows: 'the bend',
  isMetric: false,
  isBend: true,
} as const;

/** Seconds before an instant in which the joint is seen bent, and looks in them. */
const BENDS_WITHIN = 0.15;
const LOOKS = 12;
/** Sine of a bend from which on it shows about which axis the joint bends. */
const BENT = 0.3;

/**
 * The axis about which the striking elbow or knee bends, as it lies at an instant: where the joint is bent it is
 * square to both links; on from there it turns with the upper one.
 *
 * @returns null when the joint is not seen bent before
 */
function hinge(probe: MeasureProbe, when: Instant): Vector | null {
  let axis: Vector | null = null;
  for (let k = 0; k <= LOOKS; k++) {
    const time = when.time - BENDS_WITHIN * (1 - k / LOOKS);
    const links = linksAt(probe, {
      label: `hinge ${time.toFixed(5)}`,
      event: null,
      time,
      shift: 0,
    });
    if (!links) continue;
    const [upper, lower] = links;
    const across = cross(upper, lower);
    const isBent: boolean = length(across) > BENT && (axis === null || dot(axis, across) > 0);
    const next: Vector | null = isBent
      ? across
      : axis && minus(axis, scaled(upper, dot(axis, upper)));
    axis = next && scaled(next, 1 / length(next));
  }
  return axis;
}

/** Directions of the links on either side of the joint; null where they are not seen. */
function linksAt(probe: MeasureProbe, when: Instant): readonly [Vector, Vector] | null {
  try {
    const [near, middle, far] = joint(probe, when);
    const unit = (v: Vector) => scaled(v, 1 / length(v));
    return [unit(minus(middle, near)), unit(minus(far, middle))];
  } catch (error) {
    if (error instanceof MissingInput) return null;
    throw error;
  }
}

function joint(probe: MeasureProbe, when: Instant): readonly [Vector, Vector, Vector] {
  const parts = isKick(probe.strike.technique)
    ? (['Hip', 'Knee', 'Ankle'] as const)
    : (['Shoulder', 'Elbow', 'Wrist'] as const);
  const [near, middle, far] = parts.map((part) => probe.at(probe.own(part), when));
  return [near!, middle!, far!];
}

/**
 * Inner angle of the striking elbow or knee; π = straight, more = past straight.
 *
 * @throws MissingInput where it cannot be seen, or is past straight as no joint is
 */
function bend(probe: MeasureProbe, when: Instant): number {
  requireBendView(probe, `the ${isKick(probe.strike.technique) ? 'knee' : 'elbow'}'s bend`);
  const [near, middle, far] = joint(probe, when);
  const axis = probe.once(`hinge ${when.label}`, (measured) => hinge(measured, when));
  if (!axis) return angleAt(near, middle, far);
  const [upper, lower] = [minus(middle, near), minus(far, middle)];
  const past = Math.atan2(-dot(cross(upper, lower), axis), dot(upper, lower));
  if (past > NO_JOINT) throw new MissingInput(absent(notFound(probe)));
  return Math.PI + past;
}

/** Radians past straight, two to three times what the loosest elbow or knee does (common practice, no source). */
const NO_JOINT = 0.6;

const notFound = ({ strike: { technique } }: MeasureProbe) =>
  isKick(technique)
    ? 'The knee looks bent the wrong way at this instant: the leg was not found there. Put hip, knee and ankle right on that frame.'
    : 'The elbow looks bent the wrong way at this instant: the arm was not found there. Put shoulder, elbow and wrist right on that frame.';

/**
 * The limb must lie in the picture plane, which depends on the technique.
 *
 * @param what is to be seen
 */
export function requireBendView(
  { motion, strike: { technique } }: MeasureProbe,
  what: string,
): void {
  if (motion.view === '3d') return;
  const { bendViews, name } = technique;
  if (!bendViews.includes(motion.view)) {
    throw new MissingInput(
      absent(
        `A view from ${viewWords(motion.view)} cannot show ${what} in a ` +
          `${name.toLowerCase()}; ${filmFrom(bendViews)}.`,
      ),
    );
  }
  if (motion.axes.length === 0) {
    throw new MissingInput(absent('Draw the line to the target in the picture.'));
  }
}

/** Sine from which on a bend is more square than straight. */
const SQUARE = 0.7;
/**
 * The arm of an uppercut goes up beside a body that is turned. Its links up to 30° out of the picture, every amount
 * equally likely, make an error of sin² 30° ÷ 3; what every bend is given for its plane is a part of it. Radians.
 */
const RISES_ASLANT = Math.sqrt((1 / 12) ** 2 - TILTED ** 2);

/**
 * How far a bend that one picture shows may be off, because both links look shorter than they are: they point out of
 * the picture, to the same side or to opposite ones. One standard deviation, radians: cos θ = the product of their
 * directions in the picture ± the product of those out of it. A limb near straight points one way.
 */
function foreshortened(probe: MeasureProbe, bent: number): number {
  if (probe.motion.view === '3d' || Math.sin(bent) < SQUARE) return 0;
  const when = probe.event('contact');
  const parts = (['Shoulder', 'Elbow', 'Wrist'] as const).map((part) => probe.own(part));
  const [upper, lower] = [0, 1].map((i) => {
    const [near, far] = [parts[i]!, parts[i + 1]!];
    const seen = distance(probe.at(near, when), probe.at(far, when));
    return Math.sqrt(Math.max(0, 1 - (seen / probe.linkLength(near, far)) ** 2));
  });
  const aslant = probe.strike.technique.family === 'uppercut' ? RISES_ASLANT : 0;
  return Math.hypot(aslant, (upper! * lower!) / Math.sin(bent));
}

const bendingJoint = (probe: MeasureProbe) =>
  probe.own(isKick(probe.strike.technique) ? 'Knee' : 'Elbow');

/** A limb at its straightest stays so for longer than the noise of a frame: looked at so far either side, seconds. */
const STAYS_STRAIGHT = 0.0085;
/** Frames nearer to each other than so many times as long as their noise hangs together say the same. */
const APART = 1.5;

/** The bend on the frames within so many seconds of one of them, from contact on. */
function bendsAround(probe: MeasureProbe, when: Instant, within: number): readonly number[] {
  const { times, hangs } = probe.motion.raw[bendingJoint(probe)]!;
  const contact = probe.event('contact').time;
  const at = lowerBound(times, when.time - 1e-9);
  const stride = Math.max(1, Math.round((APART * hangs) / frameSpacing(times, at)));
  const first = lowerBound(times, Math.max(contact, when.time - within) - 1e-9);
  const last = lowerBound(times, when.time + within + 1e-9);
  const bends: number[] = [];
  for (let i = first; i < last; i++) {
    const time = times[i]!;
    const here: Instant = { ...when, label: `straight ${time.toFixed(5)}`, time };
    if (i === at || ((i - at) % stride === 0 && linksAt(probe, here)))
      bends.push(bend(probe, here));
  }
  return bends;
}

/** When the joint is straightest, from contact until the strike is surely over. */
function straightestAt(probe: MeasureProbe): Instant {
  const from = probe.event('contact');
  const to = probe.event('end', 2 * (probe.context.events.end?.sigma ?? 0));
  return probe.most('straightest', from, to, bendingJoint(probe), (l, at) =>
    mean(bendsAround(l, at, STAYS_STRAIGHT))!,
  );
}

/** A limb that is straighter by this in the middle than over all is so for a moment only: three times what noise of 2 mm does, radians. */
const MOMENT = 0.02;
/** It may be straighter still: standard deviation, in parts of what it is so; on made-up limbs of three families at 60 and 240 a second. */
const PEAKED = 1.5;

/** The bends that tell how straight the joint gets: on as many frames as it stays so, and how much straighter it is in their middle. */
function straightest(probe: MeasureProbe) {
  const when = straightestAt(probe);
  const at = (measured: MeasureProbe, within: number) => mean(bendsAround(measured, when, within))!;
  const within = probe.once(
    'stays straight',
    (measured) =>
      [STAYS_STRAIGHT, STAYS_STRAIGHT / 2].find(
        (one) => at(measured, one / 2) - at(measured, one) < MOMENT,
      ) ?? 0,
  );
  return { bends: bendsAround(probe, when, within), middle: at(probe, within / 2) };
}

/** The largest of several that are as straight is one that noise has made larger: by as much as a mean of them strays. */
function straighterByPick(probe: MeasureProbe, value: number): number {
  const { bends, middle } = straightest(probe);
  const strays = (deviation(bends) ?? 0) / Math.sqrt(bends.length);
  return Math.hypot(PEAKED * Math.max(0, middle - value), strays);
}

const STRAIGHTEST = {
  ...BEND,
  asSeen: true,
  value: (probe: MeasureProbe) => mean(straightest(probe).bends)!,
  doubt: straighterByPick,
} as const;

function drift(probe: MeasureProbe): number {
  return bend(probe, probe.event('contact')) - bend(probe, probe.event('contact', -DRIFT_WINDOW));
}

/** The joint the limb hangs on, and its links down to the end. */
function links(
  probe: MeasureProbe,
): readonly (readonly [
  'Shoulder' | 'Elbow' | 'Wrist' | 'Hip' | 'Knee' | 'Ankle',
  'Elbow' | 'Wrist' | 'Knee' | 'Ankle' | 'end',
])[] {
  return isKick(probe.strike.technique)
    ? [
        ['Hip', 'Knee'],
        ['Knee', 'Ankle'],
        ['Ankle', 'end'],
      ]
    : [
        ['Shoulder', 'Elbow'],
        ['Elbow', 'Wrist'],
        ['Wrist', 'end'],
      ];
}

/**
 * A tracker's hand comes after the hand: what it reaches is read up to so many seconds after contact, and is off
 * by this share of it (σ), on rendered films.
 */
const LAGS = 0.06;
const HAND_LAGS = 0.06;

const isTrackedFlat = ({ motion }: Pick<MeasureProbe, 'motion'>) =>
  motion.view !== '3d' && motion.raw[endLandmark(motion)]?.isTracked === true;

/**
 * An arm that lies in the picture looks as long as it is. Where the forearm looks shorter than this share of itself the
 * tracker has left the hand behind: a cross from the side at 24 of 64 pixels, on rendered films.
 */
const LOST = 0.6;

function requireHand(probe: MeasureProbe, when: Instant): void {
  if (!isTrackedFlat(probe) || isKick(probe.strike.technique)) return;
  const [elbow, wrist] = [probe.own('Elbow'), probe.own('Wrist')];
  const seen = distance(probe.at(elbow, when), probe.at(wrist, when));
  if (seen >= LOST * probe.linkLength(elbow, wrist)) return;
  throw new MissingInput(
    absent(
      'The forearm looks too short at contact: the hand was not found there. Put elbow, wrist and knuckles right on that frame.',
    ),
  );
}

/** The hip goes after the leg, out of the picture: σ of the share of its reach, on made-up kicks. */
const HIP_FOLLOWS = 0.02;

/**
 * Root of the limb to striking end at contact ÷ full extension: the sum of the links, each as long
 * as it is seen in this strike. Needs no scale.
 */
function reach(probe: MeasureProbe): number {
  requireBendView(probe, 'how much of the reach is used');
  if (probe.motion.view === 'above') {
    throw new MissingInput(
      absent('From above, links that hang look short, and so does full reach; two cameras would.'),
    );
  }
  const root = probe.own(isKick(probe.strike.technique) ? 'Hip' : 'Shoulder');
  const usedAt = (l: MeasureProbe, at: Instant) => distance(l.at(root, at), l.at('end', at));
  const contact = probe.event('contact');
  const when = isTrackedFlat(probe)
    ? probe.most('longest', contact, probe.event('contact', LAGS), 'end', usedAt)
    : contact;
  requireHand(probe, when);
  const used = usedAt(probe, when);
  const full = links(probe).reduce(
    (sum, [near, far]) =>
      sum + probe.linkLength(probe.own(near), far === 'end' ? far : probe.own(far)),
    0,
  );
  return used / full;
}

/**
 * Largest distance by which the elbow leaves the upright plane through its own shoulder and the
 * target, to the outside, from the arm's start to contact. Inside counts as negative.
 */
function flare(probe: MeasureProbe): number {
  const outward = probe.motion.striking === 'right' ? 1 : -1;
  const out = (l: MeasureProbe, when: Instant) =>
    outward * (l.at(l.own('Elbow'), when)[2]! - l.at(l.own('Shoulder'), when)[2]!);
  const from = probe.event('arm');
  return out(probe, probe.most('flare', from, probe.event('contact'), probe.own('Elbow'), out));
}

/** Forearm against the line to the target, and the target's own direction. */
const TARGET: Vector = [1, 0, 0];

/** Forearm, hand and knuckle line at contact. */
function fist(probe: MeasureProbe) {
  const when = probe.event('contact');
  const [elbow, wristAt, index, little] = (
    ['Elbow', 'Wrist', 'IndexKnuckle', 'LittleKnuckle'] as const
  ).map((part) => probe.at(probe.own(part), when)) as [Vector, Vector, Vector, Vector];
  return {
    forearm: minus(wristAt, elbow),
    hand: minus(midpoint(index, little), wristAt),
    knuckles: minus(index, little),
  };
}

/**
 * The hand against the forearm at contact, split into the bend about the knuckle line (up or down)
 * and the bend toward the thumb or little finger.
 */
function wrist(probe: MeasureProbe): { flex: number; side: number } {
  const { forearm, hand, knuckles: raw } = fist(probe);
  const along = scaled(forearm, 1 / length(forearm));
  // The knuckle line, made square to the forearm.
  const knuckles = minus(raw, scaled(along, dot(raw, along)));
  const across = scaled(knuckles, 1 / length(knuckles));
  const normal = cross(along, across);
  const forward = dot(hand, along);
  return {
    flex: Math.atan2(dot(hand, normal), forward),
    side: Math.atan2(dot(hand, across), forward),
  };
}

/**
 * The knuckles of a fist that is seen along its knuckle line look nearer to each other than this share of the hand: at
 * half of it, rolled by 45°, a bend of 30° read 21 on made-up fists.
 */
const SEEN_ALONG = 0.35;
/** A forearm that looks shorter than this share of itself points out of the picture. */
const IN_THE_PICTURE = 0.9;

/**
 * The bend up or down as a picture shows it in which the arm lies, of a fist that lands palm down. As in space, up
 * counts as positive of a right fist, down of a left one.
 */
function wristFlex(probe: MeasureProbe): number {
  if (probe.motion.view === '3d') return wrist(probe).flex;
  requireBendView(probe, 'the wrist');
  const { forearm, hand, knuckles } = fist(probe);
  const [elbow, wristAt] = [probe.own('Elbow'), probe.own('Wrist')];
  if (length(forearm) < IN_THE_PICTURE * probe.linkLength(elbow, wristAt)) {
    throw new MissingInput(absent('The forearm points out of the picture at contact.'));
  }
  if (length(knuckles) > SEEN_ALONG * length(hand)) {
    throw new MissingInput(absent('Only of a fist that lands palm down does the side show it.'));
  }
  const up = Math.atan2(hand[1]!, hand[0]!) - Math.atan2(forearm[1]!, forearm[0]!);
  return probe.own('Wrist') === 'leftWrist' ? -wrapped(up) : wrapped(up);
}

/** Roll of the knuckle line from vertical: 0 = thumb up, π/2 = palm down (or up). */
function knucklePlane(probe: MeasureProbe): number {
  const when = probe.event('contact');
  const line = minus(
    probe.at(probe.own('IndexKnuckle'), when),
    probe.at(probe.own('LittleKnuckle'), when),
  );
  return between(line, [0, 1, 0]);
}

const IN_SPACE = { needs: 'space', isMetric: false, unit: 'rad' } as const;

export const ARM = [
  {
    ...BEND,
    id: 'elbow.contact',
    name: 'Elbow at contact',
    of: isPunch,
    doubt: foreshortened,
    value: (probe) => {
      const contact = probe.event('contact');
      const found = bend(probe, contact);
      requireHand(probe, contact);
      return found;
    },
  },
  { ...BEND, id: 'elbow.drift', name: 'Elbow change, last 80 ms', of: isPunch, value: drift },
  {
    ...STRAIGHTEST,
    id: 'elbow.most',
    name: 'Elbow at its straightest',
    of: isPunch,
  },
  {
    ...BEND,
    id: 'knee.contact',
    name: 'Striking knee at contact',
    of: isKick,
    value: (probe) => bend(probe, probe.event('contact')),
  },
  {
    ...STRAIGHTEST,
    id: 'knee.most',
    name: 'Striking knee at its straightest',
    of: hasShank,
  },
  {
    unit: 'ratio',
    needs: 'toward',
    shows: 'reach to the target',
    isMetric: false,
    id: 'reach',
    name: 'Reach used',
    of: isLong,
    doubt: ({ motion, strike }) =>
      motion.view === '3d'
        ? 0
        : Math.hypot(
            isKick(strike.technique) ? HIP_FOLLOWS : 0,
            isTrackedFlat({ motion }) ? HAND_LAGS : 0,
          ),
    value: reach,
  },
  {
    unit: 'm',
    needs: 'right',
    shows: 'the elbow leaving the line',
    isMetric: true,
    id: 'flare',
    name: 'Elbow off the line',
    of: isPunch,
    value: flare,
  },
  {
    ...IN_SPACE,
    id: 'line',
    name: 'Forearm against the target line',
    shows: 'the forearm’s line',
    of: isPunch,
    value: (probe) => {
      const when = probe.event('contact');
      const forearm = minus(probe.at(probe.own('Wrist'), when), probe.at(probe.own('Elbow'), when));
      return between(forearm, TARGET);
    },
  },
  {
    needs: 'space',
    isMetric: true,
    unit: 'm',
    id: 'line.off',
    name: 'Elbow beside the line from shoulder to fist',
    shows: 'the line of the arm',
    of: isPunch,
    value: (probe) => {
      const when = probe.event('contact');
      return offLine(
        probe.at(probe.own('Elbow'), when),
        probe.at(probe.own('Shoulder'), when),
        probe.at('end', when),
      );
    },
  },
  {
    ...IN_SPACE,
    needs: 'sagittal',
    isBend: true,
    id: 'wrist.flex',
    name: 'Wrist bent up or down',
    shows: 'the wrist',
    of: isPunch,
    value: wristFlex,
  },
  {
    ...IN_SPACE,
    id: 'wrist.side',
    name: 'Wrist bent sideways',
    shows: 'the wrist',
    of: isPunch,
    value: (probe) => wrist(probe).side,
  },
  {
    ...IN_SPACE,
    id: 'forearm.rise',
    name: 'Forearm rises from elbow to wrist',
    shows: 'the level of the forearm',
    of: isPunch,
    value: (probe) => {
      const when = probe.event('contact');
      const forearm = minus(probe.at(probe.own('Wrist'), when), probe.at(probe.own('Elbow'), when));
      return Math.asin(forearm[1]! / length(forearm));
    },
  },
  {
    ...IN_SPACE,
    id: 'knucklePlane',
    name: 'Knuckles from upright',
    shows: 'the roll of the fist',
    of: isPunch,
    value: knucklePlane,
  },
] as const satisfies readonly Measure[];
