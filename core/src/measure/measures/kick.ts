/** What only a kick has: a knee drawn up sharply, how high it lands, the leg that folds again. */
import { length, minus, type Vector } from '../../foundation/geometry/vector';
import { nearestFrame } from '../../observe/track/time';
import { frameSpacing } from '../../observe/track/track';
import type { Technique } from '../../foundation/technique/techniques';
import { requireBendView } from './arm';
import { betweenFramesOf, shownFor } from './lasting';
import type { Instant, MeasureProbe } from './probe';
import type { Measure } from './run';
import { kneeAngle } from './stance';

/** A leg that has not begun to fold by then does not fold on its way home, seconds after contact. */
const FOLDS_BY = 0.3;

const hasShank = ({ family, end }: Technique) => family === 'kick' && end !== 'knee';

const KNEE = {
  unit: 'rad',
  needs: 'any',
  isMetric: false,
  isBend: true,
  shows: 'the bend of the kicking knee',
  of: hasShank,
} as const;

/** In space, or in a picture in which the leg stays. */
function kneeBend(probe: MeasureProbe, when: Instant): number {
  requireBendView(probe, 'the bend of the kicking knee');
  return kneeAngle(probe, probe.motion.striking, when);
}

const sharpest = (probe: MeasureProbe, name: string, from: Instant, to: Instant) =>
  probe.most(name, from, to, probe.own('Ankle'), (l, when) => -kneeBend(l, when));

/** Where nothing is seen to start: a leg is drawn up within so long of contact, seconds; common practice, no source. */
const DRAWN_UP = 0.4;

const leaves = (probe: MeasureProbe) =>
  probe.has('trunk') ? probe.event('trunk') : probe.event('contact', -DRAWN_UP);

const drawnUp = (probe: MeasureProbe) =>
  sharpest(probe, 'drawn up', leaves(probe), probe.event('contact'));

/** Of the shank's whole way, from its sharpest to contact: an instant that no definition of a start moves. */
function halfOut(probe: MeasureProbe): Instant {
  const [sharp, contact] = [drawnUp(probe), probe.event('contact')];
  const half = (kneeBend(probe, sharp) + kneeBend(probe, contact)) / 2;
  return probe.most(
    'half-way out',
    sharp,
    contact,
    probe.own('Ankle'),
    (l, when) => -Math.abs(kneeBend(l, when) - half),
  );
}

/** How high the knee is over its hip, in thighs. */
function thighRise(probe: MeasureProbe, when: Instant): number {
  const thigh = minus(probe.at(probe.own('Knee'), when), probe.at(probe.own('Hip'), when));
  return thigh[1]! / length(thigh);
}

/** What lies between one frame and the next to either side: a rectangle that wide, as one standard deviation. */
function withinAFrame(
  probe: MeasureProbe,
  at: Instant,
  value: (probe: MeasureProbe, when: Instant) => number,
): number {
  const { frameTimes } = probe.motion;
  const spacing = frameSpacing(frameTimes, nearestFrame(frameTimes, at.time));
  const [before, after] = [-0.5, 0.5].map((part) =>
    value(probe, { ...at, label: `${at.label} ${part}`, time: at.time + part * spacing }),
  );
  return Math.abs(after! - before!) / Math.sqrt(12);
}

/** What is left of an extreme by smoothing, radians; on made-up kicks, 60 to 240 frames a second, 2 and 5 mm. */
const SMOOTHED = 0.006;

/**
 * How far the sharpest bend may lie under that of the sharpest frame: it falls between two, and smoothing fills
 * it; a quarter of what the bend curves within a frame to either side. One standard deviation, radians.
 */
function betweenFrames(probe: MeasureProbe, sharp: Instant): number {
  const [from, to] = [leaves(probe).time, probe.event('contact').time];
  const { frameTimes } = probe.motion;
  const spacing = frameSpacing(frameTimes, nearestFrame(frameTimes, sharp.time));
  const [before, at, after] = [-1, 0, 1].map((step) =>
    kneeBend(probe, {
      label: `${sharp.label} ${step}`,
      event: null,
      time: Math.min(to, Math.max(from, sharp.time + step * spacing)),
      shift: 0,
    }),
  );
  return Math.hypot(SMOOTHED, Math.abs(before! + after! - 2 * at!) / 4);
}

/** The hand of the kicking side from its shoulder, as the shoulders face: forward, up, right; metres. */
function handSeen(probe: MeasureProbe, when: Instant): Vector {
  const across = minus(probe.at('rightShoulder', when), probe.at('leftShoulder', when));
  const wide = Math.hypot(across[0]!, across[2]!);
  const [x, z] = [across[0]! / wide, across[2]! / wide];
  const arm = minus(probe.at(probe.own('Wrist'), when), probe.at(probe.own('Shoulder'), when));
  return [arm[0]! * z - arm[2]! * x, arm[1]!, arm[0]! * x + arm[2]! * z];
}

/** How far it has gone since guard, metres. */
const handGone = (probe: MeasureProbe, when: Instant) =>
  length(minus(handSeen(probe, when), handSeen(probe, probe.event('ready'))));

export const KICKING = [
  {
    unit: 'ratio',
    needs: 'space',
    isMetric: false,
    shows: 'the thigh as the shank goes',
    of: hasShank,
    id: 'kick.chamber',
    name: 'Kicking thigh with the shank half-way out, 0 level, −1 hanging',
    doubt: (probe) => withinAFrame(probe, halfOut(probe), thighRise),
    value: (probe) => thighRise(probe, halfOut(probe)),
  },
  {
    unit: 'ratio',
    needs: 'up',
    isMetric: false,
    shows: 'the height of the kick',
    id: 'kick.height',
    name: 'Height of the kick, 0 at the hip, 1 at the shoulder in guard',
    of: hasShank,
    value: (probe) => {
      const ready = probe.event('ready');
      const hip = probe.middle('leftHip', 'rightHip', ready)[1]!;
      const shoulder = probe.middle('leftShoulder', 'rightShoulder', ready)[1]!;
      return (probe.at('end', probe.event('contact'))[1]! - hip) / (shoulder - hip);
    },
  },
  {
    ...KNEE,
    id: 'kick.fold',
    name: 'Kicking knee at its sharpest before contact',
    doubt: (probe) => betweenFrames(probe, drawnUp(probe)),
    value: (probe) => kneeBend(probe, drawnUp(probe)),
  },
  {
    ...KNEE,
    id: 'kick.home',
    name: 'Knee folds again on the way home',
    value: (probe) => {
      const contact = probe.event('contact');
      const home = probe.event('contact', FOLDS_BY);
      return kneeBend(probe, contact) - kneeBend(probe, sharpest(probe, 'folded', contact, home));
    },
  },
  {
    unit: 'm',
    needs: 'space',
    isMetric: true,
    sizedBy: 'forearm',
    shows: 'the hand of the kicking side',
    of: ({ family }) => family === 'kick',
    id: 'kick.arm',
    name: 'Hand of the kicking side has left its guard at contact',
    value: (probe) => handGone(probe, probe.event('contact')),
  },
  {
    unit: 's',
    needs: 'space',
    isMetric: true,
    shows: 'the hand of the kicking side',
    of: ({ family }) => family === 'kick',
    doubt: (probe) => betweenFramesOf(probe, 2),
    id: 'away.kickArm',
    name: 'Hand of the kicking side away from its guard',
    value: (probe) => {
      const showing = { name: 'hand gone', needs: probe.own('Wrist'), size: handGone };
      return shownFor(probe, showing, probe.event('contact'));
    },
  },
] as const satisfies readonly Measure[];
