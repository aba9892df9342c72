/** When pelvis and trunk are half-way through their turn: steadier than when they start. */
import { absent } from '../../foundation/reading/reading';
import type { Vector } from '../../foundation/geometry/vector';
import type { Landmark } from '../../foundation/body/landmarks';
import { AXES } from '../../reconstruct/calibration/calibration';
import { LINES, sightOf, type Sight, type TurningLink } from '../../reconstruct/motion/sight';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';
import { pelvisYaw, trunkYaw } from './turn';

/** The turn is looked for from this long before contact, seconds. */
const LONGEST = 0.5;
/** Seconds to either side over which the turn's speed is taken. */
const AROUND = 0.012;
/** Less than this is no turn, radians. */
const LEAST = 0.2;
/** How long a line is can only be guessed, and with it when it is half-way; seconds, on made-up strikes. */
const PROJECTED = 0.007;
/** A body tracker sees a trunk turn so much too early or too late, seconds, on thirty-five rendered films. */
const TRACKED = 0.015;

/** Length of a line between hips or shoulders along the picture; grows as the rear side comes forward. */
function across(
  { at }: { at: (landmark: Landmark) => Vector },
  link: TurningLink,
  { along }: Sight,
) {
  const axis = AXES.indexOf(along);
  const [left, right] = LINES[link].map((landmark) => at(landmark)[axis]!);
  return right! - left!;
}

/** How far a link has turned into the strike, radians. */
function turnedAt(link: TurningLink): (probe: MeasureProbe, when: Instant) => number {
  return (probe, when) => {
    if (isOnTheFloor(probe)) return (link === 'pelvis' ? pelvisYaw : trunkYaw)(probe, when);
    const sight = sightOf(probe.motion)!;
    const whole = probe.once(`${link} whole`, (measured) => wholeOf(measured, link, sight));
    const seen = across({ at: (one) => probe.at(one, when) }, link, sight) / whole;
    return probe.motion.turnSign * sight.angleOf(seen);
  };
}

/** How long the line is, from how long it looks where it should look longest. */
function wholeOf(probe: MeasureProbe, link: TurningLink, sight: Sight): number {
  const contact = probe.event('contact');
  const needs = LINES[link][1];
  const size = (l: MeasureProbe, when: Instant) =>
    Math.abs(across({ at: (one) => l.at(one, when) }, link, sight));
  const from = firstSeen(probe, needs, contact.time - LONGEST);
  const longest = size(probe, probe.most(`${link} longest`, from, contact, needs, size));
  return longest / sight.longest;
}

function requirePlace({ motion }: MeasureProbe, link: TurningLink): void {
  if (link === 'pelvis' && motion.raw.leftHip?.isTracked) {
    throw new MissingInput(
      absent(
        'A body tracker sees too little of a pelvis’ turn; bands or marks on both hips show it.',
      ),
    );
  }
  if (isOnTheFloor({ motion })) return;
  if (motion.axes.length === 0) {
    throw new MissingInput(absent('Draw the line to the target in the picture.'));
  }
  if (sightOf(motion) === null) {
    throw new MissingInput(
      absent(
        'From here a turn does not show; film from the side or the rear corner on the chest side.',
      ),
    );
  }
}

/** Between two lines of one picture the order is only as good as the points: nobody knows whose a file's are. */
function requireHand({ motion }: MeasureProbe): void {
  if (isOnTheFloor({ motion }) || motion.isByHand) return;
  throw new MissingInput(
    absent('Hips and shoulders marked through the turn would show it, or bands.'),
  );
}

const isOnTheFloor = ({ motion: { axes } }: Pick<MeasureProbe, 'motion'>) =>
  axes.includes('toward') && axes.includes('right');

function half(link: TurningLink): (probe: MeasureProbe) => number {
  const turned = turnedAt(link);
  return (probe) => {
    requirePlace(probe, link);
    const contact = probe.event('contact');
    const needs = LINES[link][1];
    const before = firstSeen(probe, needs, contact.time - LONGEST);
    if (before.time > turnBegins(probe)) {
      throw new MissingInput(absent(`The ${link} is first seen when its turn has begun.`));
    }
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

/** A band may be hidden until then; what else is seen is there from the film's beginning. */
const turnBegins = (probe: MeasureProbe) =>
  probe.motion.source === 'measured-band' && probe.has('hips')
    ? probe.event('hips').time
    : probe.event('contact').time;

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
    value: (probe) => {
      requireHand(probe);
      return half('pelvis')(probe) - half('trunk')(probe);
    },
  },
] as const satisfies readonly Measure[];
