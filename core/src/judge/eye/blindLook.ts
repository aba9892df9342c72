/**
 * Who left first, as the coach saw it with every lane and number put away: how sure that eye is, told by its
 * own repeated answers, and what it adds to a measurement.
 *
 * A look sees the lead with an error. Half of its variance stays with the strike (what is in that film misleads
 * each time alike), half is new in each look: so the same strike looked at again tells how large it is. Of three
 * answers that agree something is learned, of three that do not hardly anything.
 *
 * Bayes' rule on a grid over the lead and the size of the error; proportional odds for what is said
 * (McCullagh, J. R. Statist. Soc. B 42, 1980).
 */
import { z } from 'zod';
import { isAbsent, reading, type Measured, type Reading } from '../../foundation/reading/reading';

/** Hips first; trunk (a kick's thigh) first; neither; it could not be seen. */
export const ORDERS_SEEN = ['hips', 'trunk', 'together', 'unseen'] as const;
export type OrderSeen = (typeof ORDERS_SEEN)[number];

/** So many times slower than it was: each strike is shown at these in turn. */
export const LOOK_PACES = [4, 8, 16] as const;

export const MOST_LOOKS = 12;
const lookSchema = z.object({ says: z.enum(ORDERS_SEEN), slowed: z.literal(LOOK_PACES) });
export const looksSchema = z.array(lookSchema).max(MOST_LOOKS);
export type Look = z.infer<typeof lookSchema>;

/** What the eye brings to one strike. */
export interface Eye {
  /** Looks at this strike. */
  readonly own: readonly Look[];
  /** Looks at other strikes of the same film, a list each: they too tell how sure the eye is. */
  readonly others: readonly (readonly Look[])[];
}

export const NO_LOOKS: Eye = { own: [], others: [] };

/** Leads closer to nothing than this look like none, seconds (Sinew's own). */
const TOGETHER = 0.012;
/** Where nothing is known of a lead: it is about this, seconds (Sinew's own, wide). */
const USUAL = { value: 0.02, sigma: 0.045 };
/** Errors of an eye that are tried, seconds, and how likely each is before it has said anything. */
const ERRORS = [0.008, 0.012, 0.018, 0.027, 0.04, 0.06, 0.09, 0.135];
const USUAL_ERROR = { value: 0.035, spread: 0.7 };
const STEP = 0.004;
const GRID = Array.from({ length: 101 }, (_, i) => (i - 50) * STEP);

/**
 * The lead of the hips with what the eye saw; as it was measured while the eye has not said anything.
 *
 * @param measured the lead as films tell it, seconds
 */
export function leadSeen(measured: Measured, eye: Eye): Measured {
  const own = eye.own.filter(({ says }) => says !== 'unseen');
  if (own.length === 0 || (isAbsent(measured) && measured.isNotApplicable)) return measured;
  // No eye adds to what is known as finely as that.
  if (!isAbsent(measured) && measured.sigma < STEP) return measured;
  const before = isAbsent(measured) ? USUAL : measured;
  const shares = errorShares(eye);
  const prior = GRID.map((lead) => density(lead, before));
  const posterior = GRID.map(() => 0);
  ERRORS.forEach((error, k) => {
    const like = likelihood(own, error);
    const joint = prior.map((share, i) => share * like[i]!);
    const all = joint.reduce((sum, one) => sum + one, 0);
    joint.forEach((share, i) => (posterior[i]! += (shares[k]! * share) / all));
  });
  const seen = fromGrid(posterior, measured);
  return isAbsent(seen) ? seen : { ...seen, looks: own.length };
}

/** How far off one look of this eye is, seconds, one standard deviation; null before it has said anything twice. */
export function eyeError({ own, others }: Eye): number | null {
  const isRepeated = [own, ...others].some(
    (looks) => looks.filter(({ says }) => says !== 'unseen').length > 1,
  );
  if (!isRepeated) return null;
  const shares = errorShares({ own, others });
  return Math.exp(ERRORS.reduce((sum, error, k) => sum + shares[k]! * Math.log(error), 0));
}

/** How likely each size of the error is by all that the eye has said; they add up to 1. */
function errorShares({ own, others }: Eye): number[] {
  const prior = GRID.map((lead) => density(lead, USUAL));
  const logs = ERRORS.map((error) => {
    const start = -((Math.log(error / USUAL_ERROR.value) / USUAL_ERROR.spread) ** 2) / 2;
    return [own, ...others].reduce((sum, looks) => {
      const like = likelihood(looks, error);
      return sum + Math.log(like.reduce((all, one, i) => all + one * prior[i]! * STEP, 0));
    }, start);
  });
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const total = weights.reduce((sum, one) => sum + one, 0);
  return weights.map((one) => one / total);
}

/** How likely these answers are for each lead of the grid. */
function likelihood(looks: readonly Look[], error: number): number[] {
  const half = error / Math.SQRT2;
  // What the strike looks like in this film, then what is said of it.
  const said = GRID.map((seen) =>
    looks.reduce((product, { says }) => product * saysShare(says, seen, half), 1),
  );
  return GRID.map((lead) =>
    said.reduce(
      (sum, one, i) => sum + one * density(GRID[i]!, { value: lead, sigma: half }) * STEP,
      0,
    ),
  );
}

/** @param sigma of a logistic error, seconds */
function saysShare(says: OrderSeen, seen: number, sigma: number): number {
  if (says === 'unseen') return 1;
  const below = (x: number) => 1 / (1 + Math.exp((-Math.PI / Math.sqrt(3)) * ((x - seen) / sigma)));
  const [under, over] = [below(-TOGETHER), 1 - below(TOGETHER)];
  return says === 'hips' ? over : says === 'trunk' ? under : 1 - over - under;
}

function density(x: number, { value, sigma }: { value: number; sigma: number }): number {
  const wide = Math.max(sigma, STEP / 2);
  return Math.exp(-(((x - value) / wide) ** 2) / 2) / (wide * Math.sqrt(2 * Math.PI));
}

function fromGrid(shares: readonly number[], measured: Measured): Measured {
  const total = shares.reduce((sum, share) => sum + share, 0);
  const mean = GRID.reduce((sum, lead, i) => sum + (lead * shares[i]!) / total, 0);
  const variance = GRID.reduce(
    (sum, lead, i) => sum + ((lead - mean) ** 2 * shares[i]!) / total,
    0,
  );
  const { source, frames }: Pick<Reading, 'source' | 'frames'> = isAbsent(measured)
    ? { source: 'eye', frames: [] }
    : measured;
  return reading(mean, 's', Math.sqrt(variance), source, frames);
}
