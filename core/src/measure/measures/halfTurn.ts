/** When pelvis and trunk are half-way through their turn: steadier than when they start. */
import { absent } from '../../foundation/reading/reading';
import type { Vector } from '../../foundation/geometry/vector';
import type { Landmark } from '../../foundation/body/landmarks';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';
import { pelvisYaw, trunkYaw } from './turn';

type Link = 'pelvis' | 'trunk';

const LINES = {
  pelvis: ['leftHip', 'rightHip'],
  trunk: ['leftShoulder', 'rightShoulder'],
} as const satisfies Record<Link, readonly [Landmark, Landmark]>;

/** The turn is looked for from this long before contact, seconds. */
const LONGEST = 0.5;
/** Seconds to either side over which the turn's speed is taken. */
const AROUND = 0.012;
/** Less than this is no turn, radians. */
const LEAST = 0.2;
/** How long a line is can only be guessed, and with it when it is half-way; seconds, on made-up strikes. */
const PROJECTED = 0.007;
/** A body tracker sees a trunk turn so much too early or too late, seconds, on rendered films. */
const TRACKED = 0.011;

/** Turns that bodies take on the way, radians: into a strike of the rear side, and of the lead side. */
const ON_THE_WAY = { rear: [-0.87, 0.35], lead: [-1.66, -0.52] } as const;
/** Closer to square to the camera than this a line does not show which way it turns, radians. */
const SQUARE = 0.1;

/** How a line lies to the camera on the way, radians from pointing at it; null where it passes square to it. */
function sightOf({ motion, strike }: MeasureProbe): readonly [number, number] | null {
  const azimuth = motion.azimuth ?? (motion.view === 'side' ? Math.PI / 2 : null);
  if (azimuth === null) return null;
  const isRear = (motion.turnSign === 1) === (strike.technique.turns === 'forward');
  const [from, to] = ON_THE_WAY[isRear ? 'rear' : 'lead'];
  const sight = [azimuth + from, azimuth + to] as const;
  const isOneWay =
    (sight[0] > SQUARE && sight[1] < Math.PI - SQUARE) ||
    (sight[0] > SQUARE - Math.PI && sight[1] < -SQUARE);
  return isOneWay ? sight : null;
}

/** Length of a line between hips or shoulders along the picture; grows as the rear side comes forward. */
function across(
  { motion, at }: { motion: MeasureProbe['motion']; at: (landmark: Landmark) => Vector },
  link: Link,
) {
  const axis = motion.axes.includes('toward') ? 0 : 2;
  const [left, right] = LINES[link].map((landmark) => at(landmark)[axis]!);
  return right! - left!;
}

/** How far a link has turned into the strike, radians. */
function turnedAt(link: Link): (probe: MeasureProbe, when: Instant) => number {
  return (probe, when) => {
    if (isOnTheFloor(probe)) return (link === 'pelvis' ? pelvisYaw : trunkYaw)(probe, when);
    const sight = sightOf(probe)!;
    const whole = probe.once(`${link} whole`, (measured) => wholeOf(measured, link, sight));
    const seen = across({ motion: probe.motion, at: (one) => probe.at(one, when) }, link) / whole;
    const bounded = Math.max(-1, Math.min(1, seen));
    return probe.motion.turnSign * (sight[0] > 0 ? Math.acos(-bounded) : -Math.acos(bounded));
  };
}

/** How long the line is, from how long it looks where it should look longest. */
function wholeOf(probe: MeasureProbe, link: Link, sight: readonly [number, number]): number {
  const contact = probe.event('contact');
  const needs = LINES[link][1];
  const size = (l: MeasureProbe, when: Instant) =>
    Math.abs(across({ motion: l.motion, at: (one) => l.at(one, when) }, link));
  const from = firstSeen(probe, needs, contact.time - LONGEST);
  const longest = size(probe, probe.most(`${link} longest`, from, contact, needs, size));
  return longest / Math.max(...sight.map((angle) => Math.abs(Math.cos(angle))));
}

const isOnTheFloor = ({ motion: { axes } }: MeasureProbe) =>
  axes.includes('toward') && axes.includes('right');

function requirePlace(probe: MeasureProbe, link: Link): void {
  const { motion } = probe;
  if (isOnTheFloor(probe)) return;
  if (motion.axes.length === 0) {
    throw new MissingInput(absent('Draw the line to the target in the picture.'));
  }
  if (sightOf(probe) === null) {
    throw new MissingInput(
      absent(
        'From here a turn does not show; film from the side or the rear corner on the open side.',
      ),
    );
  }
  if (link === 'pelvis' && motion.raw.leftHip?.isTracked) {
    throw new MissingInput(
      absent(
        'A body tracker sees too little of a pelvis’ turn; bands or marks on both hips show it.',
      ),
    );
  }
}

function half(link: Link): (probe: MeasureProbe) => number {
  const turned = turnedAt(link);
  return (probe) => {
    requirePlace(probe, link);
    const contact = probe.event('contact');
    const needs = LINES[link][1];
    const before = firstSeen(probe, needs, contact.time - LONGEST);
    const coiled = probe.most(
      `${link} coiled`,
      before,
      contact,
      needs,
      (l, when) => -turned(l, when),
    );
    const [least, most] = [turned(probe, coiled), turned(probe, contact)];
    const middle = (least + most) / 2;
    const size = probe.once(`${link} turn`, () => most - least);
    if (size < LEAST) {
      throw new MissingInput(absent(`The ${link} hardly turns in this strike.`));
    }
    const centre = probe.once(`${link} middle`, () => middle);
    const near = probe.most(
      `${link} half`,
      coiled,
      contact,
      needs,
      (l, when) => -Math.abs(turned(l, when) - centre),
    );
    const at = (shift: number): Instant => ({
      label: `${link} half ${shift}`,
      event: null,
      time: near.time + shift,
      shift: 0,
    });
    const speed = probe.once(
      `${link} speed`,
      (measured) => (turned(measured, at(AROUND)) - turned(measured, at(-AROUND))) / (2 * AROUND),
    );
    const time = near.time + (middle - turned(probe, near)) / speed;
    return contact.time + contact.shift - time;
  };
}

/** From some time on, or from where a landmark is first seen. */
function firstSeen({ motion }: MeasureProbe, landmark: Landmark, from: number): Instant {
  const begins = motion.paths[landmark]?.times[0] ?? from;
  return { label: `${landmark} first`, event: null, time: Math.max(from, begins), shift: 0 };
}

const doubt = ({ motion }: MeasureProbe) =>
  Math.hypot(
    motion.view === '3d' || motion.source === 'measured-band' ? 0 : PROJECTED,
    motion.raw.leftShoulder?.isTracked && motion.view !== '3d' ? TRACKED : 0,
  );

const HALF = { unit: 's', needs: 'any', shows: 'a turn', isMetric: false, doubt } as const;

export const HALF_TURN = [
  {
    ...HALF,
    id: 'turn.half.pelvis',
    name: 'Pelvis half-way through its turn, before contact',
    value: half('pelvis'),
  },
  {
    ...HALF,
    id: 'turn.half.trunk',
    name: 'Trunk half-way through its turn, before contact',
    value: half('trunk'),
  },
  {
    ...HALF,
    id: 'lead.half',
    name: 'Pelvis before trunk, half-way',
    value: (probe) => half('pelvis')(probe) - half('trunk')(probe),
  },
] as const satisfies readonly Measure[];
