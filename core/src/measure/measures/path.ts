/** The striking end on its way: how it leaves, how fast it is, how far it carries on. */
import { dot, length, minus, scaled, type Vector } from '../../foundation/geometry/vector';
import { landmarkName, type Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import { frameSpacing } from '../../observe/track/track';
import { WINDOW } from '../../reconstruct/motion/moving';
import { endLandmark, ownName } from '../../reconstruct/motion/where';
import { absent, isAbsent } from '../../foundation/reading/reading';
import { pathAxis, type Technique } from '../../foundation/technique/techniques';
import { filmFrom, motionShowing, viewWords } from './context';
import { betweenFramesOf, halfUp, type Showing } from './lasting';
import { MissingInput, type Instant, type MeasureProbe } from './probe';
import type { Measure } from './run';

const isAimed = ({ along }: Technique) => along === 'target';
const isPunch = ({ end }: Technique) => end === 'fist';

/**
 * The direction along which this strike's speed counts: the target line, or for strikes that arrive
 * across it the end's own direction at contact.
 *
 * @throws MissingInput when the view does not show the strike's path
 */
export function direction(probe: MeasureProbe): Vector {
  const { technique } = probe.strike;
  const shown = motionShowing(probe.context, {
    needs: pathAxis(technique),
    name: isAimed(technique) ? 'speed to the target' : 'the path of this strike',
  });
  if (isAbsent(shown)) throw new MissingInput(shown);
  if (isAimed(technique)) return [1, 0, 0];
  const { view } = probe.motion;
  if (view !== '3d' && !technique.pathViews.includes(view)) {
    throw new MissingInput(
      absent(
        `A view from ${viewWords(view)} shortens the way of a ${technique.name.toLowerCase()}; ` +
          `${filmFrom(technique.pathViews)}.`,
      ),
    );
  }
  const velocity = endVelocity(probe, probe.event('contact'));
  return scaled(velocity, 1 / length(velocity));
}

/** @throws MissingInput naming the points to place when there are too few before the instant */
export function endVelocity(probe: MeasureProbe, when: Instant): Vector {
  try {
    return probe.velocity('end', when);
  } catch (error) {
    if (
      !(error instanceof MissingInput) ||
      probe.motion.raw[endLandmark(probe.motion)] === undefined
    )
      throw error;
    const own = ownName(probe.motion, endLandmark(probe.motion));
    throw new MissingInput(
      absent(
        `Place the ${landmarkName(own)} on two or more frames in the ${WINDOW * 1000} ms before contact.`,
        { landmarks: [own], frame: frameBefore(probe) },
      ),
    );
  }
}

/** Contact's own frame while it has no point, else two before it. */
function frameBefore(probe: MeasureProbe): number {
  const contact = probe.context.events.contact!;
  const path = probe.motion.raw[endLandmark(probe.motion)];
  return contact.frame - (path?.frames.includes(contact.frame) ? 2 : 0);
}

/** Contact less sure than this does not tell how fast it was then: a strike stops sooner; seconds. */
const SURE_CONTACT = 0.025;

/** @throws MissingInput when contact is not known well enough for what happens there at speed */
export function requireSureContact({ context }: MeasureProbe): void {
  const { contact } = context.events;
  if (contact && contact.sigma > SURE_CONTACT) {
    const within = Math.round(1000 * 1.96 * contact.sigma);
    throw new MissingInput(
      absent(`Contact is known to ± ${within} ms only; mark it to tell the speed there.`),
    );
  }
}

/** Speed along the strike's direction at contact. */
function contactSpeed(probe: MeasureProbe): number {
  requireSureContact(probe);
  requireSeenLanding(probe);
  const along = direction(probe);
  const velocity = endVelocity(probe, probe.event('contact'));
  return isAimed(probe.strike.technique) ? dot(velocity, along) : length(velocity);
}

/**
 * A body tracker sees a hand or foot least surely where it lands: in one film the speed there was up to 18 m/s
 * off (docs/accuracy.md). It takes points that somebody has placed, which have no lasting error of a tracker's.
 */
function requireSeenLanding({ motion, context }: MeasureProbe): void {
  const path = motion.raw[endLandmark(motion)];
  const contact = context.events.contact;
  if (motion.view === '3d' || !path?.isTracked || !contact) return;
  const placed = path.times.filter(
    (time, i) => time > contact.time - WINDOW && time <= contact.time + 1e-9 && path.bias[i] === 0,
  );
  if (placed.length >= 2) return;
  const own = ownName(motion, endLandmark(motion));
  throw new MissingInput(
    absent(
      `The body tracker sees the ${landmarkName(own)} least surely where it lands; place it on two or more frames in the ${WINDOW * 1000} ms before contact.`,
      { landmarks: [own], frame: contact.frame },
    ),
  );
}

/**
 * A limb that comes to its full length loses speed within a frame or two, which no way drawn on from before
 * shows: the standard deviation of the speed at contact, as a share of it; on made-up strikes (docs/accuracy).
 */
const STRAY = { kick: 0.12, other: 0.03 } as const;
/** In this time a leg that comes to its full length may lose all its speed, seconds; on kicks of two other generators. */
const ARRIVES = 0.06;

function contactDoubt(probe: MeasureProbe, speed: number): number {
  const isKick = probe.strike.technique.family === 'kick';
  const { sigma } = probe.context.events.contact!;
  return Math.hypot(
    probe.velocityDoubt('end', probe.event('contact')),
    (isKick ? STRAY.kick : STRAY.other) * speed,
    isKick ? (sigma / ARRIVES) * speed : 0,
    shortening(probe, speed),
  );
}

/**
 * How much of a speed along the strike's own path a single view may take away where it hardly shortens it:
 * standard deviation as a share; on made-up strikes, of which it took up to 18 % (docs/accuracy).
 */
const SHORTENED = 0.1;

const shortening = ({ motion, strike }: MeasureProbe, speed: number) =>
  motion.view === '3d' || isAimed(strike.technique) ? 0 : SHORTENED * Math.abs(speed);

function speedAt(probe: MeasureProbe, along: Vector | null, when: Instant): number {
  const velocity = probe.velocity('end', when);
  return along ? dot(velocity, along) : length(velocity);
}

/** Longer than this before contact no end is on its way, seconds. */
const ON_ITS_WAY = 0.25;

/**
 * The end is at its fastest for a moment, which a way drawn through frames rounds off or shoots beyond: standard
 * deviation as a share of the speed, for each second from frame to frame; on made-up strikes (docs/accuracy).
 */
const ROUNDED = 4.8;

function peakDoubt(probe: MeasureProbe, speed: number): number {
  const { when } = fastest(probe);
  const { frameTimes } = probe.motion;
  const spacing = frameSpacing(frameTimes, lowerBound(frameTimes, when.time - 1e-9));
  return Math.hypot(
    probe.velocityDoubt('end', when),
    ROUNDED * spacing * speed,
    shortening(probe, speed),
  );
}

/** Where the end is fastest between its start, or as long before as it can be, and contact. */
function fastest(probe: MeasureProbe): { when: Instant; along: Vector | null } {
  const along = isAimed(probe.strike.technique) ? direction(probe) : (direction(probe), null);
  const isStarted = probe.has('arm') || probe.has('trunk');
  const from = isStarted ? start(probe) : probe.event('contact', -ON_ITS_WAY);
  const when = probe.most('fastest', from, probe.event('contact'), 'end', (l, at) =>
    speedAt(l, along, at),
  );
  return { when, along };
}

/** The start of the striking limb, or where it is not read off, of the link before it. */
function start(probe: MeasureProbe): Instant {
  return probe.has('arm') ? probe.event('arm') : probe.event('trunk');
}

function peakSpeed(probe: MeasureProbe): number {
  const { when, along } = fastest(probe);
  return Math.max(speedAt(probe, along, when), contactSpeed(probe));
}

/** Largest acceleration along the strike's direction, from its start to contact. */
function peakAcceleration(probe: MeasureProbe): number {
  const along = direction(probe);
  const value = (l: MeasureProbe, at: Instant) => dot(l.acceleration('end', at), along);
  const from = start(probe);
  return value(
    probe,
    probe.most('quickest', from, probe.event('contact', -WINDOW / 2), 'end', value),
  );
}

/** Farthest a point goes the wrong way between ready and the arm's start. */
function telegraph(point: (probe: MeasureProbe) => Landmark | 'end', axis: 0 | 1) {
  return (probe: MeasureProbe): number => {
    const part = point(probe);
    const from = probe.event('ready');
    const home = probe.at(part, from)[axis]!;
    const back = (l: MeasureProbe, when: Instant) => home - l.at(part, when)[axis]!;
    const needs = part === 'end' ? 'end' : part;
    const most = probe.most(`tell ${part} ${axis}`, from, start(probe), needs, back);
    return probe.at(part, from)[axis]! - probe.at(part, most)[axis]!;
  };
}

/** The same against the striking shoulder, so that a body that coils or sinks is no tell. */
function drawn(axis: 0 | 1): Showing {
  const offset = (probe: MeasureProbe, when: Instant) =>
    probe.at('end', when)[axis]! - probe.at(probe.own('Shoulder'), when)[axis]!;
  return {
    name: `drawn ${axis}`,
    needs: 'end',
    size: (probe, when) => offset(probe, probe.event('ready')) - offset(probe, when),
  };
}

function mostDrawn(probe: MeasureProbe, { name, needs, size }: Showing): Instant {
  return probe.most(name, probe.event('ready'), start(probe), needs, size);
}

/** How far the hand goes the wrong way at the most. */
function againstShoulder(axis: 0 | 1) {
  const showing = drawn(axis);
  return (probe: MeasureProbe): number => showing.size(probe, mostDrawn(probe, showing));
}

/** How long before it starts it can be seen to go the wrong way. */
function seenBefore(axis: 0 | 1) {
  const showing = drawn(axis);
  return (probe: MeasureProbe): number =>
    halfUp(probe, showing, mostDrawn(probe, showing), start(probe));
}

const SPEED = { unit: 'm/s', needs: 'any', shows: 'the speed', isMetric: true } as const;
const TELL = { unit: 'm', needs: 'toward', shows: 'the way out', isMetric: true } as const;
const SEEN = {
  unit: 's',
  needs: 'toward',
  shows: 'the way out',
  isMetric: true,
  of: isPunch,
  doubt: (probe: MeasureProbe) => betweenFramesOf(probe, 1),
} as const;

export const PATH = [
  {
    ...SPEED,
    id: 'speed.contact',
    name: 'Speed at contact',
    doubt: contactDoubt,
    value: contactSpeed,
  },
  {
    ...SPEED,
    id: 'speed.peak',
    name: 'Speed at most',
    doubt: peakDoubt,
    value: peakSpeed,
  },
  {
    ...SPEED,
    unit: 'ratio',
    id: 'speed.keep',
    name: 'Speed kept to contact',
    doubt: (probe) => contactDoubt(probe, contactSpeed(probe)) / peakSpeed(probe),
    value: (probe) => {
      if (!isAimed(probe.strike.technique) && probe.motion.view !== '3d') {
        throw new MissingInput(
          absent(
            'A single view shortens the way of this strike here more, there less; two cameras would show whether it keeps its speed.',
          ),
        );
      }
      return contactSpeed(probe) / peakSpeed(probe);
    },
  },
  {
    ...SPEED,
    unit: 'm/s²',
    id: 'accel.peak',
    name: 'Acceleration at most',
    doubt: shortening,
    value: peakAcceleration,
  },
  {
    unit: 'ratio',
    needs: 'space',
    shows: 'the direction of the strike',
    isMetric: false,
    id: 'direction',
    name: 'Share of the speed that goes to the target',
    of: isAimed,
    value: (probe) => {
      const velocity = endVelocity(probe, probe.event('contact'));
      return velocity[0]! / length(velocity);
    },
  },
  {
    ...SPEED,
    unit: 'm',
    id: 'through',
    name: 'Travel past contact',
    doubt: shortening,
    value: (probe) => {
      const [contact, end] = [probe.event('contact'), probe.event('end')];
      return dot(minus(probe.at('end', end), probe.at('end', contact)), direction(probe));
    },
  },
  {
    ...TELL,
    id: 'telegraph.back',
    sizedBy: 'forearm',
    name: 'Draws back before going',
    value: telegraph(() => 'end', 0),
  },
  {
    ...TELL,
    needs: 'up',
    id: 'telegraph.down',
    name: 'Dips before going',
    value: telegraph(() => 'end', 1),
  },
  {
    ...TELL,
    id: 'telegraph.hand',
    sizedBy: 'forearm',
    name: 'Hand draws back from its shoulder',
    of: isPunch,
    value: againstShoulder(0),
  },
  {
    ...SEEN,
    id: 'seen.back',
    name: 'Hand seen to draw back, before it leaves',
    value: seenBefore(0),
  },
  {
    ...TELL,
    needs: 'up',
    id: 'telegraph.dip',
    sizedBy: 'forearm',
    name: 'Hand dips under its shoulder',
    of: isPunch,
    value: againstShoulder(1),
  },
  {
    ...SEEN,
    needs: 'up',
    id: 'seen.dip',
    name: 'Hand seen to dip, before it leaves',
    value: seenBefore(1),
  },
  {
    ...TELL,
    id: 'telegraph.shoulder',
    name: 'Shoulder draws back before going',
    of: ({ family }) => family !== 'kick',
    value: telegraph((probe) => probe.own('Shoulder'), 0),
  },
  {
    ...TELL,
    id: 'telegraph.elbow',
    name: 'Elbow draws back before going',
    of: ({ family }) => family !== 'kick',
    value: telegraph((probe) => probe.own('Elbow'), 0),
  },
] as const satisfies readonly Measure[];
