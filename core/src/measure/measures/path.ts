/** The striking end on its way: how it leaves, how fast it is, how far it carries on. */
import { dot, length, minus, scaled, type Vector } from '../../foundation/geometry/vector';
import { landmarkName, type Landmark } from '../../foundation/body/landmarks';
import { WINDOW } from '../../reconstruct/motion/moving';
import { endLandmark, ownName } from '../../reconstruct/motion/where';
import { absent, isAbsent } from '../../foundation/reading/reading';
import { pathAxis, type Technique } from '../../foundation/technique/techniques';
import { motionShowing } from './context';
import { Lacking, type Instant, type Look } from './probe';
import type { Measure } from './run';

const isAimed = ({ along }: Technique) => along === 'target';
const isPunch = ({ end }: Technique) => end === 'fist';

/**
 * The direction along which this strike's speed counts: the target line, or for strikes that arrive
 * across it the end's own direction at contact.
 *
 * @throws Lacking when the view does not show the strike's path
 */
export function direction(look: Look): Vector {
  const { technique } = look.strike;
  const shown = motionShowing(look.context, {
    needs: pathAxis(technique),
    name: isAimed(technique) ? 'speed to the target' : 'the path of this strike',
  });
  if (isAbsent(shown)) throw new Lacking(shown);
  if (isAimed(technique)) return [1, 0, 0];
  const velocity = endVelocity(look, look.event('contact'));
  return scaled(velocity, 1 / length(velocity));
}

/** @throws Lacking naming the points to place when there are too few before the instant */
export function endVelocity(look: Look, when: Instant): Vector {
  try {
    return look.velocity('end', when);
  } catch (error) {
    if (!(error instanceof Lacking) || look.motion.raw[endLandmark(look.motion)] === undefined)
      throw error;
    const own = ownName(look.motion, endLandmark(look.motion));
    throw new Lacking(
      absent(
        `Place the ${landmarkName(own)} on two or more frames in the ${WINDOW * 1000} ms before contact.`,
        { landmarks: [own], frame: frameBefore(look) },
      ),
    );
  }
}

/** Contact's own frame while it has no point, else two before it. */
function frameBefore(look: Look): number {
  const contact = look.context.events.contact!;
  const path = look.motion.raw[endLandmark(look.motion)];
  return contact.frame - (path?.frames.includes(contact.frame) ? 2 : 0);
}

/** Speed along the strike's direction at contact. */
function contactSpeed(look: Look): number {
  const along = direction(look);
  const velocity = endVelocity(look, look.event('contact'));
  return isAimed(look.strike.technique) ? dot(velocity, along) : length(velocity);
}

const contactDoubt = (look: Look) => look.velocityDoubt('end', look.event('contact'));

function speedAt(look: Look, along: Vector | null, when: Instant): number {
  const velocity = look.velocity('end', when);
  return along ? dot(velocity, along) : length(velocity);
}

/** Where the end is fastest between its start and contact. */
function fastest(look: Look): { when: Instant; along: Vector | null } {
  const along = isAimed(look.strike.technique) ? direction(look) : (direction(look), null);
  const from = start(look);
  const when = look.most('fastest', from, look.event('contact'), 'end', (l, at) =>
    speedAt(l, along, at),
  );
  return { when, along };
}

/** The start of the striking limb, or where it is not read off, of the link before it. */
function start(look: Look): Instant {
  return look.has('arm') ? look.event('arm') : look.event('trunk');
}

function peakSpeed(look: Look): number {
  const { when, along } = fastest(look);
  return Math.max(speedAt(look, along, when), contactSpeed(look));
}

/** Largest acceleration along the strike's direction, from its start to contact. */
function peakAcceleration(look: Look): number {
  const along = direction(look);
  const value = (l: Look, at: Instant) => dot(l.acceleration('end', at), along);
  const from = start(look);
  return value(look, look.most('quickest', from, look.event('contact', -WINDOW / 2), 'end', value));
}

/** Farthest a point goes the wrong way between ready and the arm's start. */
function telegraph(thing: (look: Look) => Landmark | 'end', axis: 0 | 1) {
  return (look: Look): number => {
    const part = thing(look);
    const from = look.event('ready');
    const home = look.at(part, from)[axis]!;
    const back = (l: Look, when: Instant) => home - l.at(part, when)[axis]!;
    const needs = part === 'end' ? 'end' : part;
    const most = look.most(`tell ${part} ${axis}`, from, start(look), needs, back);
    return look.at(part, from)[axis]! - look.at(part, most)[axis]!;
  };
}

/** The same against the striking shoulder, so that a body that coils or sinks is no tell. */
function againstShoulder(axis: 0 | 1) {
  return (look: Look): number => {
    const from = look.event('ready');
    const offset = (l: Look, when: Instant) =>
      l.at('end', when)[axis]! - l.at(l.own('Shoulder'), when)[axis]!;
    const home = offset(look, from);
    const most = look.most(
      `tell against shoulder ${axis}`,
      from,
      start(look),
      'end',
      (l, when) => home - offset(l, when),
    );
    return offset(look, from) - offset(look, most);
  };
}

const SPEED = { unit: 'm/s', needs: 'any', shows: 'the speed', isMetric: true } as const;
const TELL = { unit: 'm', needs: 'toward', shows: 'the way out', isMetric: true } as const;

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
    doubt: (look) => look.velocityDoubt('end', fastest(look).when),
    value: peakSpeed,
  },
  {
    ...SPEED,
    unit: 'ratio',
    id: 'speed.keep',
    name: 'Speed kept to contact',
    doubt: (look) => contactDoubt(look) / peakSpeed(look),
    value: (look) => {
      if (!isAimed(look.strike.technique) && look.motion.view !== '3d') {
        throw new Lacking(
          absent(
            'A single view shortens the way of this strike here more, there less; two cameras would show whether it keeps its speed.',
          ),
        );
      }
      return contactSpeed(look) / peakSpeed(look);
    },
  },
  {
    ...SPEED,
    unit: 'm/s²',
    id: 'accel.peak',
    name: 'Acceleration at most',
    value: peakAcceleration,
  },
  {
    unit: 'ratio',
    needs: 'toward',
    shows: 'the direction of the strike',
    isMetric: false,
    id: 'direction',
    name: 'Share of the speed that goes to the target',
    of: isAimed,
    value: (look) => {
      const velocity = endVelocity(look, look.event('contact'));
      return velocity[0]! / length(velocity);
    },
  },
  {
    ...SPEED,
    unit: 'm',
    id: 'through',
    name: 'Travel past contact',
    value: (look) => {
      const [contact, end] = [look.event('contact'), look.event('end')];
      return dot(minus(look.at('end', end), look.at('end', contact)), direction(look));
    },
  },
  {
    ...TELL,
    id: 'telegraph.back',
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
    name: 'Hand draws back from its shoulder',
    of: isPunch,
    value: againstShoulder(0),
  },
  {
    ...TELL,
    needs: 'up',
    id: 'telegraph.dip',
    name: 'Hand dips under its shoulder',
    of: isPunch,
    value: againstShoulder(1),
  },
  {
    ...TELL,
    id: 'telegraph.shoulder',
    name: 'Shoulder draws back before going',
    of: ({ family }) => family !== 'kick',
    value: telegraph((look) => look.own('Shoulder'), 0),
  },
  {
    ...TELL,
    id: 'telegraph.elbow',
    name: 'Elbow draws back before going',
    of: ({ family }) => family !== 'kick',
    value: telegraph((look) => look.own('Elbow'), 0),
  },
] as const satisfies readonly Measure[];
