/**
 * How often a coach agrees with the judge on a leak, and the limit that would have agreed more often:
 * what was called wrong lies near the limit, what was taken lies beyond it.
 */
import { isAbsent } from '../../foundation/reading/reading';
import type { Judged } from '../fault/finding';
import { isOfReading, limitId, type Fault, type ReadingLimit } from '../fault/schema';

/** A leak that was found, and what the coach said of it. */
export interface Decided {
  readonly technique: string;
  readonly isTaken: boolean;
  readonly judgedBy: readonly Judged[];
}

export interface Agreement {
  readonly taken: number;
  readonly wrong: number;
  readonly proposal: Proposal | null;
}

/** A limit farther out. */
export interface Proposal {
  /** By `limitId`. */
  readonly limit: string;
  readonly reading: ReadingLimit['reading'];
  readonly from: number;
  readonly to: number;
  /** Of those called wrong and of those taken, how many would not have been found. */
  readonly wrongLeft: number;
  readonly takenLeft: number;
}

/** Fewer decisions, or fewer wrong ones that a limit would spare, propose nothing. */
const FEWEST = 5;
const FEWEST_WRONG = 3;
/** A leak that was taken counts as much as so many that were wrong. */
const WEIGHT = 2;

export function agreementOn(fault: Fault, decided: readonly Decided[]): Agreement {
  const taken = decided.filter(({ isTaken }) => isTaken).length;
  const wrong = decided.length - taken;
  const proposals = limitsOf(fault).map((one) => proposalFor(one, decided));
  const [best] = proposals
    .filter((one) => one !== null)
    .sort((a, b) => b.wrongLeft - WEIGHT * b.takenLeft - (a.wrongLeft - WEIGHT * a.takenLeft));
  return { taken, wrong, proposal: decided.length < FEWEST ? null : (best ?? null) };
}

interface OwnLimit {
  readonly id: string;
  readonly limit: ReadingLimit;
  readonly techniques: readonly string[];
}

/** The first limit of each case: the one that is quoted. */
function limitsOf(fault: Fault): OwnLimit[] {
  return fault.cases.flatMap((one) => {
    const limit = one.limits[0]!;
    if (!isOfReading(limit)) return [];
    return { id: limitId(one, limit), limit, techniques: one.techniques ?? fault.techniques };
  });
}

function proposalFor(
  { id, limit, techniques }: OwnLimit,
  decided: readonly Decided[],
): Proposal | null {
  const sign = limit.is === 'below' ? -1 : 1;
  const far = decided.flatMap(({ technique, isTaken, judgedBy }) => {
    const judged = judgedBy[0];
    if (!techniques.includes(technique) || !judged?.measured || isAbsent(judged.measured))
      return [];
    if (!isOfReading(judged.limit) || judged.limit.reading !== limit.reading) return [];
    if (judged.limit.is !== limit.is) return [];
    const { value, size = 1 } = judged.measured;
    // Where limits go with the body, as it would be on the body they are written for.
    return { isTaken, at: (sign * (limit.is === 'outside' ? Math.abs(value) : value)) / size };
  });
  const [here, ordered] = [sign * limit.value, far.sort((a, b) => a.at - b.at)];
  const candidates = ordered.slice(0, -1).map(({ at }, i) => {
    const to = (at + ordered[i + 1]!.at) / 2;
    const left = ordered.filter((one) => one.at < to);
    const takenLeft = left.filter(({ isTaken }) => isTaken).length;
    return { to, takenLeft, wrongLeft: left.length - takenLeft };
  });
  const [best] = candidates
    .filter(({ to }) => to > here)
    .filter(({ wrongLeft, takenLeft }) => wrongLeft - WEIGHT * takenLeft >= FEWEST_WRONG)
    .sort((a, b) => b.wrongLeft - WEIGHT * b.takenLeft - (a.wrongLeft - WEIGHT * a.takenLeft));
  if (!best) return null;
  const { takenLeft, wrongLeft } = best;
  const to = Number((sign * best.to).toPrecision(3));
  return { limit: id, reading: limit.reading, from: limit.value, to, takenLeft, wrongLeft };
}
