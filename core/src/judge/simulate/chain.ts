/**
 * A chain of rigid links in one plane, hung on the pelvis and driven at its joints: the equations of
 * motion, and their integration.
 *
 * With absolute angles qᵢ, and Aᵢⱼ made of masses and lengths, the links obey
 *   Σⱼ Aᵢⱼ cos(qᵢ − qⱼ) q̈ⱼ + Σⱼ Aᵢⱼ sin(qᵢ − qⱼ) q̇ⱼ² = τᵢ − τᵢ₊₁
 * (Lagrange's equations of an open planar chain without gravity; any textbook of multibody dynamics).
 * The plane is that of the strike; the step carries all of it along and adds its speed.
 */

/** A link from its near joint outwards. Metres, kilograms. */
export interface Link {
  readonly name: string;
  /** Near joint to the next one; 0 when the next link turns about the same axis. */
  readonly length: number;
  readonly mass: number;
  /** Near joint to centre of mass, along the link. */
  readonly centre: number;
  /** Moment of inertia about the centre of mass, kg m². */
  readonly inertia: number;
}

/** Absolute angles, radians, and their rates. */
export interface State {
  readonly angles: readonly number[];
  readonly rates: readonly number[];
}

/** Torque at each link's near joint on that link, N m. @param time seconds */
export type Drive = (state: State, time: number) => readonly number[];

export class Chain {
  private readonly a: readonly (readonly number[])[];

  constructor(readonly links: readonly Link[]) {
    const beyond = (i: number) => links.slice(i + 1).reduce((sum, { mass }) => sum + mass, 0);
    this.a = links.map((near, i) =>
      links.map((far, j) => {
        if (i === j) {
          return near.inertia + near.mass * near.centre ** 2 + near.length ** 2 * beyond(i);
        }
        const [inner, outer, k] = i < j ? [near, far, j] : [far, near, i];
        return inner.length * (outer.mass * outer.centre + outer.length * beyond(k));
      }),
    );
  }

  /** Mass matrix at some angles. */
  mass(angles: readonly number[]): number[][] {
    return this.a.map((row, i) => row.map((one, j) => one * Math.cos(angles[i]! - angles[j]!)));
  }

  accelerations({ angles, rates }: State, torques: readonly number[]): number[] {
    const n = this.links.length;
    const mass: number[][] = [];
    const right: number[] = [];
    for (let i = 0; i < n; i++) {
      const row: number[] = [];
      let free = torques[i]! - (i + 1 < n ? torques[i + 1]! : 0);
      for (let j = 0; j < n; j++) {
        const apart = angles[i]! - angles[j]!;
        row.push(this.a[i]![j]! * Math.cos(apart));
        free -= this.a[i]![j]! * Math.sin(apart) * rates[j]! ** 2;
      }
      mass.push(row);
      right.push(free);
    }
    return solved(mass, right);
  }

  /** Kinetic energy, J. */
  energy({ angles, rates }: State): number {
    const mass = this.mass(angles);
    return 0.5 * sumOver(rates, (i) => sumOver(rates, (j) => rates[i]! * mass[i]![j]! * rates[j]!));
  }

  /** Angular momentum about the pelvis, kg m²/s. */
  angularMomentum({ angles, rates }: State): number {
    const mass = this.mass(angles);
    return sumOver(rates, (i) => sumOver(rates, (j) => mass[i]![j]! * rates[j]!));
  }

  /** Where the end of the last link is, from the pelvis, metres. */
  end(angles: readonly number[]): readonly [number, number] {
    return this.joint(angles, this.links.length);
  }

  /** Where a link's near joint is. @param index the link's, or one more than the last for the end */
  joint(angles: readonly number[], index: number): readonly [number, number] {
    return this.links
      .slice(0, index)
      .reduce<readonly [number, number]>(
        ([x, y], { length }, i) => [
          x + length * Math.cos(angles[i]!),
          y + length * Math.sin(angles[i]!),
        ],
        [0, 0],
      );
  }

  /** The end's velocity that each link's own rate gives along a direction, m/s. */
  private alongRates(angles: readonly number[], [ux, uy]: readonly [number, number]): number[] {
    return this.links.map(
      ({ length }, i) => length * (-Math.sin(angles[i]!) * ux + Math.cos(angles[i]!) * uy),
    );
  }

  endVelocity({ angles, rates }: State): readonly [number, number] {
    const along = (u: readonly [number, number]) =>
      this.alongRates(angles, u).reduce((sum, one, i) => sum + one * rates[i]!, 0);
    return [along([1, 0]), along([0, 1])];
  }

  /** Parts of the end's speed along a direction that come from each joint's own turning; they add up. */
  shares({ angles, rates }: State, u: readonly [number, number]): number[] {
    const slopes = this.alongRates(angles, u);
    return this.links.map((_, i) => {
      const own = rates[i]! - (i === 0 ? 0 : rates[i - 1]!);
      return own * slopes.slice(i).reduce((sum, one) => sum + one, 0);
    });
  }

  /**
   * Mass that the end sets against a blow along a direction, kg: 1 / (uᵀ J M⁻¹ Jᵀ u).
   *
   * Source: Khatib, Int. J. Robotics Res. 14 (1995) 19–36, from memory.
   */
  effectiveMass(angles: readonly number[], u: readonly [number, number]): number {
    const j = this.alongRates(angles, u);
    const x = solved(this.mass(angles), j);
    return 1 / j.reduce((sum, one, i) => sum + one * x[i]!, 0);
  }

  /** One step of the classic Runge–Kutta method of fourth order. */
  step(state: State, time: number, dt: number, drive: Drive): State {
    const slope = (s: State, t: number) => ({
      rates: s.rates,
      accelerations: this.accelerations(s, drive(s, t)),
    });
    const on = ({ rates, accelerations }: ReturnType<typeof slope>, by: number): State => ({
      angles: state.angles.map((q, i) => q + by * rates[i]!),
      rates: state.rates.map((w, i) => w + by * accelerations[i]!),
    });
    const k1 = slope(state, time);
    const k2 = slope(on(k1, dt / 2), time + dt / 2);
    const k3 = slope(on(k2, dt / 2), time + dt / 2);
    const k4 = slope(on(k3, dt), time + dt);
    const mean = (of: (k: ReturnType<typeof slope>) => readonly number[], i: number) =>
      (dt / 6) * (of(k1)[i]! + 2 * of(k2)[i]! + 2 * of(k3)[i]! + of(k4)[i]!);
    return {
      angles: state.angles.map((q, i) => q + mean((k) => k.rates, i)),
      rates: state.rates.map((w, i) => w + mean((k) => k.accelerations, i)),
    };
  }
}

function sumOver(all: readonly number[], of: (i: number) => number): number {
  let sum = 0;
  for (let i = 0; i < all.length; i++) sum += of(i);
  return sum;
}

/** Gaussian elimination of a small, positive definite system; both arguments are used up. */
function solved(matrix: number[][], right: number[]): number[] {
  const n = right.length;
  const x = [...right];
  for (let i = 0; i < n; i++) {
    for (let row = i + 1; row < n; row++) {
      const factor = matrix[row]![i]! / matrix[i]![i]!;
      for (let k = i; k < n; k++) matrix[row]![k]! -= factor * matrix[i]![k]!;
      x[row]! -= factor * x[i]!;
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= matrix[i]![k]! * x[k]!;
    x[i]! /= matrix[i]![i]!;
  }
  return x;
}
