/** What the rest of the body does meanwhile: the other hand, the chin, the head. */
import { distance, length, midpoint, minus, plus, type Vector } from '../../foundation/geometry/vector';
import type { Instant, Look } from './probe';
import type { Measure } from './run';

const IN_SPACE = { unit: 'm', needs: 'space', shows: 'the guard', isMetric: true } as const;

const ears = (look: Look, when: Instant) => look.middle('leftEar', 'rightEar', when);
const shoulders = (look: Look, when: Instant) => look.middle('leftShoulder', 'rightShoulder', when);

/** Seconds of the way out over which the other hand must stay up. */
function wayOut(look: Look): [Instant, Instant] {
  return [look.has('arm') ? look.event('arm') : look.event('trunk'), look.event('contact')];
}

/** Other hand to its own temple, which lies a little in front of the ear. */
function offGuard(look: Look, when: Instant): number {
  return distance(look.at(look.off('Wrist'), when), temple(look, when));
}

function temple(look: Look, when: Instant): Vector {
  return midpoint(look.at(look.off('Ear'), when), look.at('nose', when));
}

/** Other hand as seen from its own temple. */
function offPlace(look: Look, when: Instant): Vector {
  return minus(look.at(look.off('Wrist'), when), temple(look, when));
}

/** Other hand's height over the nose. */
function offHeight(look: Look, when: Instant): number {
  return look.at(look.off('Wrist'), when)[1]! - look.at('nose', when)[1]!;
}

/**
 * The chin, which is no landmark: below the nose by 0.6 of the way from the nose to the ears'
 * middle (about 6–7 cm on a grown head), on the line of the face. An estimate from the proportions
 * of a head; common practice, no source.
 */
function chin(look: Look, when: Instant): Vector {
  const nose = look.at('nose', when);
  const depth = length(minus(nose, ears(look, when)));
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
function headOff(look: Look, when: Instant): number {
  const over = (at: Instant) => minus(ears(look, at), shoulders(look, at));
  return distance(over(when), over(look.event('ready')));
}

/** Seconds after contact within which the head shakes. */
const SHAKE = 0.1;

export const GUARD = [
  {
    ...IN_SPACE,
    id: 'guard.off',
    name: 'Other hand from its temple',
    value: (look) => {
      const [from, to] = wayOut(look);
      return offGuard(look, look.most('off', from, to, look.off('Wrist'), offGuard));
    },
  },
  {
    ...IN_SPACE,
    id: 'guard.leave',
    name: 'Other hand leaves its place by the head',
    value: (look) => {
      const place = offPlace(look, look.event('ready'));
      const away = (l: Look, when: Instant) => distance(offPlace(l, when), place);
      const [from, to] = wayOut(look);
      const most = look.most('left', from, to, look.off('Wrist'), away);
      return distance(offPlace(look, most), offPlace(look, look.event('ready')));
    },
  },
  {
    ...IN_SPACE,
    needs: 'up',
    id: 'guard.drop',
    name: 'Other hand drops',
    value: (look) => {
      const [from, to] = wayOut(look);
      const lowest = look.most(
        'dropped',
        from,
        to,
        look.off('Wrist'),
        (l, at) => -offHeight(l, at),
      );
      return offHeight(look, look.event('ready')) - offHeight(look, lowest);
    },
  },
  {
    ...IN_SPACE,
    id: 'guard.chin',
    name: 'Striking shoulder to chin',
    of: ({ family }) => family !== 'kick',
    value: (look) => {
      const when = look.event('contact');
      return distance(look.at(look.own('Shoulder'), when), chin(look, when));
    },
  },
  {
    ...IN_SPACE,
    needs: 'up',
    id: 'guard.chinRise',
    name: 'Chin rises over the shoulders',
    value: (look) => {
      const over = (when: Instant) => look.at('nose', when)[1]! - shoulders(look, when)[1]!;
      return over(look.event('contact')) - over(look.event('ready'));
    },
  },
  {
    ...IN_SPACE,
    id: 'guard.ribs',
    name: 'Other elbow from the ribs',
    value: (look) => {
      const when = look.event('contact');
      return fromSegment(
        look.at(look.off('Elbow'), when),
        look.at(look.off('Shoulder'), when),
        look.at(look.off('Hip'), when),
      );
    },
  },
  {
    ...IN_SPACE,
    shows: 'the head against the trunk',
    id: 'head',
    name: 'Head thrown off its place',
    value: (look) =>
      headOff(
        look,
        look.most('thrown', look.event('ready'), look.event('contact'), 'nose', headOff),
      ),
  },
  {
    ...IN_SPACE,
    shows: 'the head against the trunk',
    id: 'head.shake',
    name: 'Head shakes after contact',
    value: (look) => {
      const [from, to] = [look.event('contact'), look.event('contact', SHAKE)];
      const most = look.most('shaken most', from, to, 'nose', headOff);
      const least = look.most('shaken least', from, to, 'nose', (l, at) => -headOff(l, at));
      return headOff(look, most) - headOff(look, least);
    },
  },
  {
    ...IN_SPACE,
    shows: 'the other shoulder',
    needs: 'ground',
    id: 'counter',
    name: 'Other shoulder pulls back',
    of: ({ family }) => family !== 'kick',
    value: (look) => {
      const back = (when: Instant) =>
        look.at(look.off('Shoulder'), when)[0]! - look.middle('leftHip', 'rightHip', when)[0]!;
      return back(look.event('ready')) - back(look.event('contact'));
    },
  },
] as const satisfies readonly Measure[];
