/** What is said of a strike: a fault found, not there, or not to be told; and by which rules. */
import { NO_LOOKS, type Eye } from '../eye/blindLook';
import type { Audit } from '../eye/eyeChecks';
import type { Readings } from '../../measure/measures/allMeasures';
import type { SetId } from '../../measure/measures/set';
import type { Measured } from '../../foundation/reading/reading';
import { resolve, NO_SCHOOL, type SchoolInForce } from '../school/resolve';
import { CATALOGUE } from './faults';
import type { Cost } from './cost';
import type { Catalogue, Limit } from './schema';

export type Outcome = 'found' | 'clear' | 'cant-tell';

/** A limit and the whole reading that was held against it. */
export interface Judged {
  readonly limit: Limit;
  /** Null for what the coach's eye says. */
  readonly measured: Measured | null;
}

export interface Finding {
  readonly fault: string;
  readonly name: string;
  /** Which of the fault's ways is told. */
  readonly way: string;
  readonly status: Outcome;
  /** One sentence to the coach. */
  readonly evidence: string;
  readonly injury: boolean;
  /** The limits that judged it and what they were held against, kept with the finding. */
  readonly judgedBy: readonly Judged[];
  /** The choices of school that it was judged by, as "plant the foot (inside a combination)". */
  readonly judgedAs: readonly string[];
  /** The frame that shows it, when there is one. */
  readonly frame: number | null;
  /** What it costs, where that can be estimated; null until then. */
  readonly cost: Cost | null;
  /** Where it cannot be told: why not. */
  readonly open: Open | null;
}

export interface Open {
  /** What would settle it, as a sentence. */
  readonly settle: string;
  /** What was measured and is not enough, as "3 ± 4°, limit 7°"; null when nothing was. */
  readonly short: string | null;
  /** What is more likely, in four of five cases or more; null where nothing is. */
  readonly likely: 'there' | 'not-there' | null;
}

/** What a strike is judged by, beside its readings. */
export interface Rules {
  readonly catalogue: Catalogue;
  readonly school: SchoolInForce;
  /** The coach's word on what no camera can judge. */
  readonly audit: Audit;
  /** What the coach saw of the order, looking blind. */
  readonly eye: Eye;
}

export const USUAL_RULES: Rules = {
  catalogue: CATALOGUE,
  school: resolve(NO_SCHOOL),
  audit: {},
  eye: NO_LOOKS,
};

/** Readings of a strike, and of the set it belongs to when a set is judged. */
export type JudgedReadings = Readings & Partial<Readonly<Record<SetId, Measured>>>;
