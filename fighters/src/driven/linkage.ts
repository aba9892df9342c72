/**
 * A chain of rigid bodies in space, each on one hinge or slide of the body before it: which torques move it
 * how, and how it moves under torques. World as the fighter's: X to the target, Y up, Z to the right; SI.
 *
 * Source: recursive Newton–Euler equations and the inertia they give by unit accelerations, Walker & Orin,
 * J. Dyn. Sys. Meas. Control 104 (1982) 205–211, method 1.
 */
import { Matrix, solve } from 'ml-matrix';
import { add, cross, dot, scaled, subtract, type Point } from '../fighter/space';

export interface Part {
  readonly name: string;
  readonly kind: 'hinge' | 'slide';
  /** Where its hinge sits in the body before, and about (or along) which axis of that body it moves. */
  readonly at: Point;
  readonly axis: Point;
  /** Kilograms; a part of a joint with several hinges weighs nothing. */
  readonly mass: number;
  /** Its centre of mass and its moments of inertia about the axes through it, in its own frame. */
  readonly centre: Point;
  readonly inertia: Point;
}

/** Where a part is: its hinge, and its own three axes in the world. */
export interface Placed {
  readonly at: Point;
  readonly axis: Point;
  readonly frame: readonly [Point, Point, Point];
}

export interface Moving {
  /** Radians, or metres of a slide, and their rates. */
  readonly q: readonly number[];
  readonly rates: readonly number[];
}

const WORLD: Placed['frame'] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const NOWHERE: Point = [0, 0, 0];

/** A point or direction of a frame, in the world. */
export function inWorld(frame: Placed['frame'], [x, y, z]: Point): Point {
  return add(add(scaled(frame[0], x), frame[1], y), frame[2], z);
}

/** Rodrigues' turn of a vector about a unit axis. */
export function turnedAbout(axis: Point, angle: number, v: Point): Point {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return add(add(scaled(v, c), cross(axis, v), s), axis, dot(axis, v) * (1 - c));
}

export class Linkage {
  constructor(readonly parts: readonly Part[]) {}

  placed(q: readonly number[]): Placed[] {
    let before: Placed = { at: NOWHERE, axis: NOWHERE, frame: WORLD };
    return this.parts.map((part, i) => {
      const axis = inWorld(before.frame, part.axis);
      const hinge = add(before.at, inWorld(before.frame, part.at));
      const isHinge = part.kind === 'hinge';
      const [a, b, c] = before.frame;
      const turn = (v: Point) => turnedAbout(axis, q[i]!, v);
      before = {
        axis,
        at: isHinge ? hinge : add(hinge, axis, q[i]!),
        frame: isHinge ? [turn(a), turn(b), turn(c)] : before.frame,
      };
      return before;
    });
  }

  /**
   * The torques (forces of slides) under which it accelerates so.
   *
   * @param placed of the same `q` that the rates belong to
   */
  torques(placed: readonly Placed[], rates: readonly number[], accelerations: readonly number[]) {
    let [spin, swing, pull, from]: Point[] = [NOWHERE, NOWHERE, NOWHERE, NOWHERE];
    const loads = placed.map(({ at, axis, frame }, i) => {
      const part = this.parts[i]!;
      const arm = subtract(at, from!);
      // The hinge rides on the body before it.
      pull = add(pull!, add(cross(swing!, arm), cross(spin!, cross(spin!, arm))));
      if (part.kind === 'slide') {
        pull = add(pull, add(scaled(axis, accelerations[i]!), cross(spin!, axis), 2 * rates[i]!));
      } else {
        swing = add(add(swing!, axis, accelerations[i]!), cross(spin!, scaled(axis, rates[i]!)));
        spin = add(spin!, axis, rates[i]!);
      }
      from = at;
      const centre = inWorld(frame, part.centre);
      const ofCentre = add(pull, add(cross(swing!, centre), cross(spin!, cross(spin!, centre))));
      const force = scaled(ofCentre, part.mass);
      const resisted = (v: Point) =>
        frame.reduce<Point>(
          (sum, own, k) => add(sum, own, part.inertia[k]! * dot(own, v)),
          NOWHERE,
        );
      const moment = add(resisted(swing!), cross(spin!, resisted(spin!)));
      return { force, moment: add(moment, cross(centre, force)) };
    });
    const out = new Array<number>(placed.length);
    let [force, moment, about]: Point[] = [NOWHERE, NOWHERE, NOWHERE];
    for (let i = placed.length - 1; i >= 0; i--) {
      const { at, axis } = placed[i]!;
      // What the bodies beyond ask for, about this hinge.
      moment = add(add(moment!, cross(subtract(about!, at), force!)), loads[i]!.moment);
      force = add(force!, loads[i]!.force);
      about = at;
      out[i] = dot(axis, this.parts[i]!.kind === 'hinge' ? moment : force);
    }
    return out;
  }

  /** Symmetric and positive definite, in kg m² (kg, kg m where a slide takes part). */
  inertia(placed: readonly Placed[]): Matrix {
    const still = placed.map(() => 0);
    return new Matrix(
      placed.map((_, i) =>
        this.torques(
          placed,
          still,
          still.map((_, k) => (k === i ? 1 : 0)),
        ),
      ),
    );
  }

  accelerations({ q, rates }: Moving, driven: readonly number[]): number[] {
    const placed = this.placed(q);
    const own = this.torques(
      placed,
      rates,
      q.map(() => 0),
    );
    const left = Matrix.columnVector(driven.map((torque, i) => torque - own[i]!));
    return solve(this.inertia(placed), left).to1DArray();
  }

  /** One step of Runge–Kutta's fourth order. */
  step(
    now: Moving,
    time: number,
    dt: number,
    drive: (at: Moving, time: number) => number[],
  ): Moving {
    const slope = (at: Moving, when: number) => ({
      q: at.rates,
      rates: this.accelerations(at, drive(at, when)),
    });
    const onward = (by: number, s: Moving): Moving => ({
      q: now.q.map((value, i) => value + by * s.q[i]!),
      rates: now.rates.map((value, i) => value + by * s.rates[i]!),
    });
    const a = slope(now, time);
    const b = slope(onward(dt / 2, a), time + dt / 2);
    const c = slope(onward(dt / 2, b), time + dt / 2);
    const d = slope(onward(dt, c), time + dt);
    const mean = (x: number, i: number, of: 'q' | 'rates') =>
      x + (dt / 6) * (a[of][i]! + 2 * b[of][i]! + 2 * c[of][i]! + d[of][i]!);
    return {
      q: now.q.map((value, i) => mean(value, i, 'q')),
      rates: now.rates.map((value, i) => mean(value, i, 'rates')),
    };
  }

  /** What each part's own movement moves a point of the last part by: m/s for each unit of rate. */
  slopes(placed: readonly Placed[], point: Point): Point[] {
    return placed.map(({ at, axis }, i) =>
      this.parts[i]!.kind === 'hinge' ? cross(axis, subtract(point, at)) : axis,
    );
  }

  velocity(slopes: readonly Point[], rates: readonly number[]): Point {
    return slopes.reduce<Point>((sum, slope, i) => add(sum, slope, rates[i]!), NOWHERE);
  }

  /**
   * Mass that a blow along a direction feels at a point of the last part, kg.
   *
   * Source: Khatib, IEEE J. Robotics Automation 3 (1987) 43–53.
   */
  massBehind(placed: readonly Placed[], point: Point, direction: Point): number {
    const along = this.slopes(placed, point).map((slope) => dot(slope, direction));
    const answer = solve(this.inertia(placed), Matrix.columnVector(along));
    return 1 / along.reduce((sum, one, i) => sum + one * answer.get(i, 0), 0);
  }

  /** Kinetic energy, J. */
  energy({ q, rates }: Moving): number {
    const inertia = this.inertia(this.placed(q));
    const pushed = inertia.mmul(Matrix.columnVector([...rates]));
    return rates.reduce((sum, rate, i) => sum + 0.5 * rate * pushed.get(i, 0), 0);
  }
}
