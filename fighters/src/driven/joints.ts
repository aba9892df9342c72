/** What holds and moves the joints of a driven fighter at an instant. */
import type { Moving } from './linkage';
import { comeOn, inRange, left, tightens } from './muscles';

/** How a body goes forward over its feet: m/s at which nothing is left, metres, N/m, N s/m. */
const PUSH = { fastest: 1.6, reaches: 0.14, stiff: 6000, damped: 60 };
/** An elbow's or a knee's own tissue stops it so far before it is straight, radians. */
const LEFT_BENT = 0.1;
/** Rate at which what steers a limb at its root has nothing left, rad/s. */
const ROOT_FASTEST = 24;

/** What a body's muscles are like. */
export interface Muscled {
  /** Kilograms: a heavier body is as much stronger. */
  readonly mass: number;
  /** Seconds of each of the two stages in which a muscle comes on. */
  readonly stage: number;
  /** How fast its muscles can shorten, of the usual. */
  readonly quick: number;
  /** How evenly its muscles lose their pull with speed (see `left`). */
  readonly bent: number;
}

/** The torques, in N m (the push in N), of one joint after the other. */
export class Joints {
  private readonly strong: number;

  constructor(
    private readonly body: Muscled,
    private readonly start: readonly number[],
    private readonly now: Moving,
    private readonly time: number,
  ) {
    this.strong = body.mass / 70;
  }

  /** As by a spring and its friction. */
  held(i: number, stiff: number, to = this.start[i]!): number {
    const { q, rates } = this.now;
    return this.strong * stiff * (to - q[i]! - 0.08 * rates[i]!);
  }

  /** By its muscle, until its own tissue stops it. */
  turned(i: number, pull: number, call: number, fastest: number, range: number): number {
    const rate = this.now.rates[i]!;
    const turned = this.now.q[i]! - this.start[i]!;
    const worked = pull * this.on(call) * this.left(rate / fastest) * inRange(turned / range);
    return this.strong * (worked - tightens(turned - range, rate));
  }

  /** To an angle, by no more than its muscles have by now. */
  steered(i: number, to: number, pull: number, damped: number, call: number, stiff = 160): number {
    const { q, rates } = this.now;
    const most =
      pull * this.on(call) * this.left((Math.sign(to - q[i]!) * rates[i]!) / ROOT_FASTEST);
    const wanted = stiff * (to - q[i]!) - damped * rates[i]!;
    return this.strong * Math.min(most, Math.max(-most, wanted));
  }

  /** Along a slide, as far as the legs reach. */
  pushed(i: number, pull: number, call: number): number {
    const { q, rates } = this.now;
    const worked = pull * this.on(call) * this.left(rates[i]! / PUSH.fastest);
    const over = Math.max(0, q[i]! - PUSH.reaches);
    return this.strong * (worked - PUSH.stiff * over - PUSH.damped * rates[i]!);
  }

  /** A hinge that opens: its angle falls toward nothing from where it was folded, by its muscle. */
  opened(i: number, pull: number, call: number, fastest: number, folded: number): number {
    const opened = folded - this.now.q[i]!;
    const rate = -this.now.rates[i]!;
    const worked = pull * this.on(call) * this.left(rate / fastest) * inRange(opened / folded);
    return this.strong * (tightens(opened - (folded - LEFT_BENT), rate) - worked);
  }

  /** By the muscle on its other side, as long as it moves. */
  stopped(i: number, pull: number, call: number): number {
    const rate = this.now.rates[i]!;
    return -this.strong * pull * this.on(call) * Math.sign(rate) * Math.min(1, Math.abs(rate));
  }

  private on(call: number): number {
    return comeOn(this.time - call, this.body.stage);
  }

  private left(speed: number): number {
    return left(speed / this.body.quick, this.body.bent);
  }
}
