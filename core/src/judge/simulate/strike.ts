/** A strike as the chain model throws it: from guard, through its joints' onsets, to contact. */
import { Chain, type Link, type State } from './chain';
import { activation, forceAt } from './muscle';

/** How one joint is driven. Angles are of its link against the link before; N m, radians, seconds. */
export interface Joint {
  /** Largest torque, standing. */
  readonly torque: number;
  /** +1 when the strike turns it up, −1 when it turns it down. */
  readonly sign: 1 | -1;
  /** When it is called. */
  readonly onset: number;
  /** Speed at which its muscles have nothing left, rad/s. */
  readonly fastest: number;
  /** Stiffness with which it is held until it is called, N m/rad. */
  readonly hold: number;
  /** It is held to the end: the elbow of a hook. */
  readonly isHeld: boolean;
  /** How far it can turn in the strike; a soft stop stands there. */
  readonly range: number;
}

/** When the end meets the target. */
export type Meets =
  /** The limb from its root is stretched to this share of its length. */
  | { readonly at: 'reach'; readonly share: number }
  /** The link before the limb has turned this far from guard, radians. */
  | { readonly at: 'turn'; readonly angle: number }
  /** The end comes through a plane: a point of it, and the way through. */
  | { readonly at: 'face'; readonly point: Flat; readonly through: Flat };

export type Flat = readonly [number, number];

export interface Model {
  readonly links: readonly Link[];
  readonly joints: readonly Joint[];
  /** Absolute angles in guard; they grow as the strike turns. */
  readonly guard: readonly number[];
  /** Index of the limb's first link. */
  readonly root: number;
  readonly meets: Meets;
  /**
   * Whether speed counts along the line of the limb, which whoever strikes points at the target, or
   * along the end's own path.
   */
  readonly along: 'line' | 'path';
  /** Metres a second at which the step carries all of it to the target. */
  readonly step: number;
  /** Share of the floor's hold that is lost: 0 = the support foot is nailed down. */
  readonly give: number;
}

export interface SimulatedStrike {
  /** Where the end is at contact, and the way it goes. */
  readonly end: Flat;
  readonly direction: Flat;
  /** Seconds from the first onset to contact; the end of the time when it never arrives. */
  readonly contact: number;
  readonly hasArrived: boolean;
  /** Speed of the end along the strike, m/s. */
  readonly speed: number;
  /** Largest speed before contact. */
  readonly peak: number;
  /** Mass behind it and what it carries: kg, N s. */
  readonly mass: number;
  readonly momentum: number;
  /** Parts of the speed from the step and from each link's own turning, in the order of the chain. */
  readonly shares: readonly number[];
  /** How far each link has turned since guard, radians. */
  readonly turned: readonly number[];
  /** Change of the last joint’s inner angle in the last 80 ms, radians; positive = it opens. */
  readonly drift: number;
  /** Turning rates over time, for drawing: seconds, rad/s by link. */
  readonly trace: readonly { readonly time: number; readonly rates: readonly number[] }[];
  /** Work that the joints have done and kinetic energy gained, J: the same but for rounding. */
  readonly work: number;
  readonly energy: number;
}

const DT = 0.001;
/** A strike that has not arrived after this time does not, seconds. */
const LONGEST = 0.9;
/** Of its speed a strike has at least this share into a target that stands: what has less goes past it. */
const INTO = 0.6;
/** Soft stops: N m/rad and N m s/rad. */
const STOP = { stiffness: 900, damping: 12 };
const HOLD_DAMPING = 0.06;
const DRIFT = 0.08;

/** Runs the strike in the chain model. */
export function simulateStrike(model: Model): SimulatedStrike {
  const chain = new Chain(model.links);
  const drive = (state: State, time: number) => torques(model, state, time);
  let state: State = { angles: model.guard, rates: model.guard.map(() => 0) };
  let before = state;
  let [time, work, peak] = [0, 0, 0];
  const trace: { time: number; rates: readonly number[] }[] = [];
  const history: State[] = [];
  let gap = missing(model, chain, state);
  let hasArrived = false;
  for (let i = 0; time < LONGEST; i++) {
    before = state;
    state = chain.step(state, time, DT, drive);
    work += workOf(before, state, drive(before, time), drive(state, time + DT));
    const next = missing(model, chain, state);
    if (gap > 0 && next <= 0) {
      // The instant between two steps at which it arrives.
      const share = gap / (gap - next);
      state = between(before, state, share);
      time += share * DT;
      hasArrived = true;
      break;
    }
    gap = next;
    time += DT;
    peak = Math.max(peak, speedOf(model, chain, state));
    history.push(state);
    if (i % 2 === 0) trace.push({ time, rates: state.rates });
  }
  const direction = directionOf(model, chain, state);
  const speed = speedOf(model, chain, state);
  const [vx, vy] = chain.endVelocity(state);
  const isInto = model.meets.at !== 'face' || speed - model.step > INTO * Math.hypot(vx, vy);
  const mass = chain.effectiveMass(state.angles, direction);
  const earlier = history[Math.max(0, history.length - Math.round(DRIFT / DT))] ?? before;
  return {
    end: chain.end(state.angles),
    direction,
    contact: time,
    hasArrived: hasArrived && isInto,
    speed,
    peak: Math.max(peak, speed),
    mass,
    momentum: mass * speed,
    shares: [model.step, ...chain.shares(state, direction)],
    turned: state.angles.map((angle, i) => angle - model.guard[i]!),
    // The inner angle of a joint grows as its link turns back against the one before.
    drift: lastBend(earlier) - lastBend(state),
    trace: [...trace, { time, rates: state.rates }],
    work,
    energy: chain.energy(state),
  };
}

/**
 * The strike with its target standing where it met it: what is changed in it has to come there.
 *
 * @param as the strike as it was thrown
 */
export function standing(model: Model, { end, direction }: SimulatedStrike): Model {
  if (model.meets.at !== 'turn') return model;
  return { ...model, meets: { at: 'face', point: end, through: direction } };
}

function between(a: State, b: State, share: number): State {
  const mix = (x: readonly number[], y: readonly number[]) =>
    x.map((one, i) => one + share * (y[i]! - one));
  return { angles: mix(a.angles, b.angles), rates: mix(a.rates, b.rates) };
}

/** What is missing to contact: positive before, 0 at it. */
function missing({ meets, root, guard, links }: Model, chain: Chain, { angles }: State): number {
  if (meets.at === 'turn') return meets.angle - (angles[root - 1]! - guard[root - 1]!);
  const [x, y] = chain.end(angles);
  if (meets.at === 'face') {
    const { point, through } = meets;
    return (point[0] - x) * through[0] + (point[1] - y) * through[1];
  }
  const [rx, ry] = chain.joint(angles, root);
  const full = links.slice(root).reduce((sum, { length }) => sum + length, 0);
  return meets.share - Math.hypot(x - rx, y - ry) / full;
}

/** The limb's own line where the strike is aimed along it, else the way the end goes. */
function directionOf(
  model: Model,
  chain: Chain,
  { angles, rates }: State,
): readonly [number, number] {
  if (model.meets.at === 'face') return model.meets.through;
  const [ex, ey] = chain.end(angles);
  const [rx, ry] = chain.joint(angles, model.root);
  const line = model.along === 'line' ? [ex - rx, ey - ry] : chain.endVelocity({ angles, rates });
  const size = Math.hypot(line[0]!, line[1]!) || 1;
  return [line[0]! / size, line[1]! / size];
}

/** The step goes where the strike goes, so all of it counts. */
function speedOf(model: Model, chain: Chain, state: State): number {
  const [ux, uy] = directionOf(model, chain, state);
  const [vx, vy] = chain.endVelocity(state);
  return vx * ux + vy * uy + model.step;
}

const bendOf = ({ angles }: State, i: number) => angles[i]! - (i === 0 ? 0 : angles[i - 1]!);
const lastBend = (state: State) => bendOf(state, state.angles.length - 1);

function torques({ joints, guard, give }: Model, state: State, time: number): number[] {
  return joints.map((joint, i) => {
    const { sign, onset, torque, fastest, hold, isHeld, range } = joint;
    const rest = guard[i]! - (i === 0 ? 0 : guard[i - 1]!);
    const turned = sign * (bendOf(state, i) - rest);
    const rate = sign * (state.rates[i]! - (i === 0 ? 0 : state.rates[i - 1]!));
    const on = activation(time - onset);
    const pull = torque * on * forceAt(rate / fastest) * (i === 0 ? 1 - give : 1);
    const isWaiting = isHeld || time < onset;
    // Held, it gives a little both ways; let go, what was stretched behind still pulls it forward.
    const elastic = isWaiting || turned < 0 ? -hold * turned : 0;
    const damped = isWaiting ? -HOLD_DAMPING * hold * rate * 0.3 : 0;
    const over = turned - range;
    const stop = over > 0 ? -STOP.stiffness * over - STOP.damping * Math.max(0, rate) : 0;
    return sign * (pull + elastic + damped + stop);
  });
}

/** Work of the joints over a step by the trapezoidal rule. */
function workOf(a: State, b: State, first: readonly number[], second: readonly number[]): number {
  return first.reduce((sum, torque, i) => {
    const turned = bendOf(b, i) - bendOf(a, i);
    return sum + 0.5 * (torque + second[i]!) * turned;
  }, 0);
}
