/** For how long something shows that comes and goes: from half of its most to half of its most. */
import { absent } from '../../foundation/reading/reading';
import type { BodyPoint } from './motionSampler';
import { MissingInput, type Instant, type MeasureProbe } from './probe';

/** Something that is nothing in guard, grows and goes again. */
export interface Showing {
  readonly name: string;
  /** The landmark that decides which frames there are. */
  readonly needs: BodyPoint;
  /** Metres, or radians. */
  readonly size: (probe: MeasureProbe, when: Instant) => number;
  /** What is less than this at its most is not timed; `LEAST` when not given. */
  readonly least?: number;
}

/** Seconds to either side over which its speed is taken. */
const AROUND = 0.02;
/** What is less than this at its most is noise, or nothing worth a word; metres. */
const LEAST = 0.03;
/** What would take longer than this to go from its half to nothing drifts, and no instant is half of it; seconds. */
const SLOWEST = 0.6;

/** How exactly an instant between two frames is told, as a share of their spacing; one standard deviation, on made-up strikes. */
const BETWEEN = 0.2;

/** What a time of this kind is unsure by beside its points, for each instant that is told; seconds. */
export function betweenFramesOf({ motion }: MeasureProbe, instants: 1 | 2): number {
  const { frameTimes } = motion;
  const spacing = (frameTimes.at(-1)! - frameTimes[0]!) / (frameTimes.length - 1);
  return BETWEEN * spacing * Math.sqrt(instants);
}

/** How long before an instant of the strike something comes to half of what it is at its most, seconds. */
export function halfUp(
  probe: MeasureProbe,
  showing: Showing,
  most: Instant,
  until: Instant,
): number {
  const passed = passing(probe, showing, most, [probe.event('ready'), most]);
  return until.time + until.shift - passed;
}

/**
 * How long something is at least half of what it is at its most, seconds. What has not gone by the time the strike is
 * home counts until then.
 */
export function shownFor(probe: MeasureProbe, showing: Showing, most: Instant): number {
  const gone = goneBy(probe, showing, most, probe.event('home'));
  return gone - passing(probe, showing, most, [probe.event('ready'), most]);
}

/** When something has fallen to half of what it is at an instant, seconds; when it is asked no more, if it has not by then. */
export function goneBy(
  probe: MeasureProbe,
  showing: Showing,
  most: Instant,
  until: Instant,
): number {
  const isStillThere = probe.once(
    `${showing.name} stays`,
    (measured) => showing.size(measured, until) > showing.size(measured, most) / 2,
  );
  return isStillThere ? until.time + until.shift : passing(probe, showing, most, [most, until]);
}

/** The time within a stretch at which it is half of its most, to a fraction of a frame. */
function passing(
  probe: MeasureProbe,
  { name, needs, size, least = LEAST }: Showing,
  most: Instant,
  [from, to]: readonly [Instant, Instant],
): number {
  const label = `${name} ${from === most ? 'goes' : 'comes'}`;
  const half = size(probe, most) / 2;
  const middle = probe.once(`${name} half`, () => half);
  if (!(2 * middle > least)) throw new MissingInput(absent('It hardly shows.'));
  const near = probe.most(label, from, to, needs, (l, at) => -Math.abs(size(l, at) - middle));
  const at = (shift: number): Instant => ({
    label: `${label} ${shift}`,
    event: null,
    time: near.time + shift,
    shift: 0,
  });
  const speed = probe.once(
    `${label} speed`,
    (measured) => (size(measured, at(AROUND)) - size(measured, at(-AROUND))) / (2 * AROUND),
  );
  if (!(Math.abs(speed) * SLOWEST > Math.abs(middle))) {
    throw new MissingInput(absent('It comes and goes too slowly to say for how long.'));
  }
  return near.time + (half - size(probe, near)) / speed;
}
