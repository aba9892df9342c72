/**
 * Families of made-up bodies. What holds for one family may hold for its way of moving alone; what holds
 * for three has a chance with a student.
 */
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import type { Recipe } from '../fighter/recipe';
import type { RiseId } from '../fighter/rises';
import type { Flaws } from '../fighter/track';

/**
 * What the noise of a tracker or of a marker system is like: it hangs together for 5 ms, one point in a hundred
 * jumps by 25 mm, three frames in a hundred are lost.
 */
export const REAL: Flaws = { hangs: 0.005, jumps: 0.01, jump: 0.025, gaps: 1 };

export interface Family {
  readonly id: 'still' | 'swaying' | 'driven';
  readonly name: string;
  /** The same strike as a body of this family throws it; every seed another body. */
  readonly of: (recipe: Recipe, seed: number) => Recipe;
}

/** What is drawn for one body. */
class Drawn {
  private readonly random: () => number;
  constructor(seed: number) {
    this.random = seeded(seed);
  }
  within(low: number, high: number): number {
    return low + (high - low) * this.random();
  }
  among<T>(all: readonly T[]): T {
    return all[Math.floor(this.random() * all.length)]!;
  }
}

const SKEWED: readonly RiseId[] = ['early', 'late', 'soft', 'even'];

export const FAMILIES: readonly Family[] = [
  {
    id: 'still',
    name: 'still but for the strike, speeds rise evenly',
    of: (recipe) => recipe,
  },
  {
    id: 'swaying',
    name: 'sways, breathes, drifts, slips; speeds rise early or late',
    of: (recipe, seed) => {
      const drawn = new Drawn(7 * seed + 1);
      return {
        ...recipe,
        rises: {
          load: drawn.among(SKEWED),
          pelvis: drawn.among(SKEWED),
          trunk: drawn.among(SKEWED),
          arm: drawn.among(SKEWED),
        },
        idle: {
          sway: [drawn.within(0.004, 0.015), drawn.within(0.004, 0.012)],
          swayRate: drawn.within(0.3, 0.6),
          breath: drawn.within(0.002, 0.006),
          breathRate: drawn.within(0.25, 0.45),
          turn: drawn.within(-0.06, 0.06),
          drift: drawn.within(-0.02, 0.02),
          slip: drawn.within(0, 0.012),
          phase: drawn.within(0, 6.28),
        },
      };
    },
  },
  {
    id: 'driven',
    name: 'each link answers to a push, on a body that rocks',
    of: (recipe, seed) => {
      const drawn = new Drawn(11 * seed + 5);
      return {
        ...recipe,
        rises: { load: 'driven', pelvis: 'driven', trunk: 'driven', arm: 'driven' },
        pelvisPeak: recipe.pelvisPeak * drawn.within(0.95, 1.2),
        load: recipe.load * drawn.within(0.85, 1.3),
        idle: {
          sway: [drawn.within(0.002, 0.006), drawn.within(0.002, 0.006)],
          swayRate: drawn.within(0.8, 1.2),
          breath: drawn.within(0.001, 0.003),
          breathRate: drawn.within(0.5, 0.8),
          turn: drawn.within(-0.03, 0.03),
          drift: 0,
          slip: drawn.within(0, 0.006),
          phase: drawn.within(0, 6.28),
        },
      };
    },
  },
];
