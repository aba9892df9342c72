/** The same target from several distances: which form serves at each. */

export interface Rung {
  /** From the rear foot to the target, m. */
  readonly distance: number;
  /** The technique thrown. */
  readonly form: string;
  /** Its momentum, speed or whatever is compared, with one standard deviation. */
  readonly value: number;
  readonly sigma: number;
}

export interface BestForm {
  readonly distance: number;
  /** The best one first; those that cannot be told from it stand with it. */
  readonly best: readonly string[];
  readonly value: number;
  readonly sigma: number;
}

/** Two forms differ when they are further apart than 1.96 √(σ₁² + σ₂²). */
export function bestForms(rungs: readonly Rung[]): BestForm[] {
  const distances = [...new Set(rungs.map(({ distance }) => distance))].sort((a, b) => a - b);
  return distances.map((distance) => {
    const here = rungs
      .filter((rung) => rung.distance === distance)
      .sort((a, b) => b.value - a.value);
    const top = here[0]!;
    const isTie = (rung: Rung) =>
      top.value - rung.value <= 1.96 * Math.hypot(top.sigma, rung.sigma);
    return {
      distance,
      best: here.filter((rung) => rung === top || isTie(rung)).map(({ form }) => form),
      value: top.value,
      sigma: top.sigma,
    };
  });
}
