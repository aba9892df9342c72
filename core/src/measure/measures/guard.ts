/** What the rest of the body does meanwhile: the other hand, the chin, the head. */
import {
  distance,
  length,
  midpoint,
  minus,
  plus,
  type Vector,
} from '../../foundation/geometry/vector';
import { isPunch } from './arm';
import { betweenFramesOf, shownFor, type Showing } from './lasting';
import { MissingInput, requireSquare, type Instant, type MeasureProbe } from './probe';
import { absent } from '../../foundation/reading/reading';
import type { Measure } from './run';

const IN_SPACE = { unit: 'm', needs: 'space', shows: 'the guard', isMetric: true } as const;
const AWAY = {
  unit: 's',
  needs: 'space',
  shows: 'the guard',
  isMetric: true,
  doubt: (probe: MeasureProbe) => betweenFramesOf(probe, 2),
} as const;

const ears = (probe: MeasureProbe, when: Instant) => probe.middle('leftEar', 'rightEar', when);
const shoulders = (probe: MeasureProbe, when: Instant) =>
  probe.middle('leftShoulder', 'rightShoulder', when);

/** Where no start is seen: a hand at full speed is out for so long, seconds. */
const OUT_FOR = 0.25;

/** Seconds of the way out over which the other hand must stay up. */
function wayOut(probe: MeasureProbe): [Instant, Instant] {
  const start = (['arm', 'trunk'] as const).find((event) => probe.has(event));
  const contact = probe.event('contact');
  if (start) return [probe.event(start), contact];
  // A guess in space is too rough to be watched where nothing is seen to start.
  const isGuess = probe.motion.source === 'estimated-3d';
  return [isGuess ? probe.event('trunk') : probe.event('contact', -OUT_FOR), contact];
}

/** Other hand to its own temple, which lies a little in front of the ear. */
function offGuard(probe: MeasureProbe, when: Instant): number {
  return distance(probe.at(probe.off('Wrist'), when), temple(probe, when));
}

function temple(probe: MeasureProbe, when: Instant): Vector {
  return midpoint(probe.at(probe.off('Ear'), when), probe.at('nose', when));
}

/** Other hand as seen from its own temple. */
function offPlace(probe: MeasureProbe, when: Instant): Vector {
  return minus(probe.at(probe.off('Wrist'), when), temple(probe, when));
}

/**
 * How far the other hand has left its place by the head since guard: as the room has it, or as the shoulders carry
 * it, whichever is less. A hand that stays where the head is has not left it, nor one that turns with the body.
 */
function left(probe: MeasureProbe, when: Instant): number {
  const ready = probe.event('ready');
  const [place, now] = [offPlace(probe, ready), offPlace(probe, when)];
  const turn = shoulderYaw(probe, when) - shoulderYaw(probe, ready);
  return Math.min(distance(now, place), distance(now, turned(place, turn)));
}

const leaves = (probe: MeasureProbe): Showing => ({
  name: 'left',
  needs: probe.off('Wrist'),
  size: left,
});
const drops = (probe: MeasureProbe): Showing => ({
  name: 'dropped',
  needs: probe.off('Wrist'),
  size: (l, when) => offHeight(l, l.event('ready')) - offHeight(l, when),
});

const out = (probe: MeasureProbe): Showing => ({
  name: 'out',
  needs: probe.own('Wrist'),
  size: (l, when) => distance(l.at(l.own('Wrist'), when), l.at(l.own('Wrist'), l.event('ready'))),
});

function mostOnTheWay(probe: MeasureProbe, { name, needs, size }: Showing): Instant {
  const [from, to] = wayOut(probe);
  return probe.most(name, from, to, needs, size);
}

function shoulderYaw(probe: MeasureProbe, when: Instant): number {
  const [x, , z] = minus(probe.at('rightShoulder', when), probe.at('leftShoulder', when));
  return Math.atan2(x!, z!);
}

/** A vector turned about the upright as a yaw grows. */
function turned([x, y, z]: Vector, yaw: number): Vector {
  const [sin, cos] = [Math.sin(yaw), Math.cos(yaw)];
  return [x! * cos + z! * sin, y!, z! * cos - x! * sin];
}

/** Other hand's height over the nose. */
function offHeight(probe: MeasureProbe, when: Instant): number {
  return probe.at(probe.off('Wrist'), when)[1]! - probe.at('nose', when)[1]!;
}

/**
 * The chin, which is no landmark: below the nose by 0.6 of the way from the nose to the ears'
 * middle (about 6–7 cm on a grown head), on the line of the face. An estimate from the proportions
 * of a head; common practice, no source.
 */
function chin(probe: MeasureProbe, when: Instant): Vector {
  const nose = probe.at('nose', when);
  const depth = length(minus(nose, ears(probe, when)));
  return plus(nose, [-0.1 * depth, -0.6 * depth, 0]);
}

/** Distance of a point from the line between two others, not beyond its ends. */
function fromSegment(point: Vector, a: Vector, b: Vector): number {
  const line = minus(b, a);
  const offset = minus(point, a);
  const along = offset.reduce((sum, value, i) => sum + value * line[i]!, 0);
  const share = Math.min(1, Math.max(0, along / line.reduce((sum, v) => sum + v * v, 0)));
  return length(
    minus(
      offset,
      line.map((one) => one * share),
    ),
  );
}

/** The head over the shoulders, relative to where it was in guard. */
function headOff(probe: MeasureProbe, when: Instant): number {
  const over = (at: Instant) => minus(ears(probe, at), shoulders(probe, at));
  return distance(over(when), over(probe.event('ready')));
}

const thrown = (probe: MeasureProbe) =>
  headOff(
    probe,
    probe.most('thrown', probe.event('ready'), probe.event('contact'), 'nose', headOff),
  );

/** Seconds after contact within which the head shakes. */
const SHAKE = 0.1;

export const GUARD = [
  {
    ...IN_SPACE,
    id: 'guard.off',
    name: 'Other hand from its temple',
    value: (probe) => {
      const [from, to] = wayOut(probe);
      return offGuard(probe, probe.most('off', from, to, probe.off('Wrist'), offGuard));
    },
  },
  {
    ...IN_SPACE,
    id: 'guard.leave',
    sizedBy: 'forearm',
    name: 'Other hand leaves its place by the head',
    value: (probe) => left(probe, mostOnTheWay(probe, leaves(probe))),
  },
  {
    ...AWAY,
    id: 'away.leave',
    name: 'Other hand away from its place by the head',
    value: (probe) => shownFor(probe, leaves(probe), mostOnTheWay(probe, leaves(probe))),
  },
  {
    ...IN_SPACE,
    needs: 'up',
    id: 'guard.drop',
    sizedBy: 'forearm',
    name: 'Other hand drops',
    value: (probe) => drops(probe).size(probe, mostOnTheWay(probe, drops(probe))),
  },
  {
    ...AWAY,
    needs: 'up',
    id: 'away.drop',
    name: 'Other hand low',
    value: (probe) => shownFor(probe, drops(probe), mostOnTheWay(probe, drops(probe))),
  },
  {
    ...AWAY,
    id: 'away.own',
    name: 'Striking hand out',
    of: isPunch,
    value: (probe) => shownFor(probe, out(probe), probe.event('contact')),
  },
  {
    ...IN_SPACE,
    id: 'guard.chin',
    sizedBy: 'forearm',
    name: 'Striking shoulder to chin',
    of: ({ family }) => family !== 'kick',
    value: (probe) => {
      const when = probe.event('contact');
      return distance(probe.at(probe.own('Shoulder'), when), chin(probe, when));
    },
  },
  {
    ...IN_SPACE,
    needs: 'up',
    id: 'guard.chinRise',
    name: 'Chin rises over the shoulders',
    value: (probe) => {
      const over = (when: Instant) => probe.at('nose', when)[1]! - shoulders(probe, when)[1]!;
      return over(probe.event('contact')) - over(probe.event('ready'));
    },
  },
  {
    ...IN_SPACE,
    id: 'guard.ribs',
    name: 'Other elbow from the ribs',
    value: (probe) => {
      const when = probe.event('contact');
      return fromSegment(
        probe.at(probe.off('Elbow'), when),
        probe.at(probe.off('Shoulder'), when),
        probe.at(probe.off('Hip'), when),
      );
    },
  },
  {
    ...IN_SPACE,
    shows: 'the head against the trunk',
    id: 'head',
    name: 'Head thrown off its place',
    value: thrown,
  },
  {
    ...IN_SPACE,
    needs: 'up',
    shows: 'the head against the trunk',
    id: 'head.seen',
    name: 'Head thrown off its place, at least',
    value: (probe) => {
      if (probe.motion.view !== '3d') return thrown(probe);
      throw new MissingInput(absent('In space the whole of it is known.'));
    },
  },
  {
    ...IN_SPACE,
    shows: 'the head against the trunk',
    id: 'head.shake',
    name: 'Head shakes after contact',
    value: (probe) => {
      const [from, to] = [probe.event('contact'), probe.event('contact', SHAKE)];
      const most = probe.most('shaken most', from, to, 'nose', headOff);
      const least = probe.most('shaken least', from, to, 'nose', (l, at) => -headOff(l, at));
      return headOff(probe, most) - headOff(probe, least);
    },
  },
  {
    ...IN_SPACE,
    shows: 'the other shoulder',
    needs: 'toward',
    id: 'counter',
    name: 'Other shoulder pulls back',
    of: ({ family }) => family !== 'kick',
    value: (probe) => {
      requireSquare(probe, 'what a shoulder pulls back', 'from the side');
      const back = (when: Instant) =>
        probe.at(probe.off('Shoulder'), when)[0]! - probe.middle('leftHip', 'rightHip', when)[0]!;
      return back(probe.event('ready')) - back(probe.event('contact'));
    },
  },
] as const satisfies readonly Measure[];
