/**
 * The speed gate: slow → tempo → full → power. A step up is earned by three clean sets in a row at
 * the present speed and the grade that the gym asks, to full power by any grade at all; what can hurt,
 * and what hurt, sends the student back to slow and shuts the gate until the coach has cleared it. The
 * coach may open it, with a reason; not past an injury, and not to full power under 16.
 *
 * Source: common practice of the slow-first school, no publication.
 */
import { INTENT_NAMES, INTENTS, type Intent } from '../../foundation/drill/intent';
import { NO_POWER_UNDER_16, POWER_NEEDS_GRADE, slowOnly, type Condition } from './condition';

/** Clean sets in a row that a step needs. */
export const CLEAN_SETS = 3;
/** A set is clean when no timing fault shows in 8 of 10 strikes. */
export const CLEAN_SHARE = 0.8;
/** A set of fewer strikes proves nothing. */
export const FEWEST_IN_SET = 8;

/** What has happened to the gate of one student and technique. */
export type GateEvent =
  | {
      readonly kind: 'set';
      readonly at: string;
      readonly intent: Intent;
      readonly clean: number;
      readonly of: number;
    }
  /** Something that can hurt was accepted. */
  | { readonly kind: 'injury'; readonly at: string }
  | {
      readonly kind: 'override';
      readonly at: string;
      readonly to: Intent;
      readonly reason: string;
    };

export interface GateRules {
  /** The gym's grades, lowest first. */
  readonly grades: readonly string[];
  /** The grade from which an intent is allowed; missing for none asked. */
  readonly from: Readonly<Partial<Record<Intent, string>>>;
}

export const NO_GRADES: GateRules = { grades: [], from: {} };

export interface Gate {
  /** The hardest intent allowed now. */
  readonly level: Intent;
  /** The step above it; null at power. */
  readonly next: Intent | null;
  /** Clean sets in a row at this level, and how many the step needs. */
  readonly cleanSets: number;
  readonly needed: number;
  /** Why the next step is shut, as a sentence; null when the sets are all that is missing. */
  readonly shut: string | null;
  readonly isShutByInjury: boolean;
}

export function isClean({ clean, of }: { readonly clean: number; readonly of: number }): boolean {
  return of >= FEWEST_IN_SET && clean >= CLEAN_SHARE * of;
}

/** @param events of one student and technique, any order; `at` sorts as text */
export function gateOf(
  events: readonly GateEvent[],
  condition: Condition,
  rules: GateRules = NO_GRADES,
): Gate {
  const { isJunior } = condition;
  const shutTo = (step: Intent) =>
    ageShuts(step, isJunior) ?? gradeShuts(step, condition.grade, rules);
  let level: Intent = 'slow';
  let cleanSets = 0;
  for (const event of [...events].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))) {
    if (event.kind === 'injury') [level, cleanSets] = ['slow', 0];
    else if (event.kind === 'override') [level, cleanSets] = [event.to, 0];
    else if (event.intent === level) {
      cleanSets = isClean(event) ? cleanSets + 1 : 0;
      const next = stepAbove(level);
      if (cleanSets >= CLEAN_SETS && next && !shutTo(next)) {
        [level, cleanSets] = [next, 0];
      }
    }
  }
  const hurts = slowOnly(condition);
  if (hurts) [level, cleanSets] = ['slow', 0];
  if (ageShuts(level, isJunior)) [level, cleanSets] = ['full', 0];
  const next = stepAbove(level);
  return {
    level,
    next,
    cleanSets,
    needed: CLEAN_SETS,
    isShutByInjury: hurts !== null,
    shut: hurts ?? (next && shutTo(next)),
  };
}

export function stepAbove(intent: Intent): Intent | null {
  return INTENTS[INTENTS.indexOf(intent) + 1] ?? null;
}

/** @returns why the age does not allow it, or null */
function ageShuts(intent: Intent, isJunior: boolean): string | null {
  return isJunior && intent === 'power' ? NO_POWER_UNDER_16 : null;
}

/** @returns why the grade does not allow it, or null */
function gradeShuts(intent: Intent, grade: string, { grades, from }: GateRules): string | null {
  if (intent === 'power' && grade === '') return POWER_NEEDS_GRADE;
  const asked = from[intent];
  if (!asked || !grades.includes(asked)) return null;
  if (grades.indexOf(grade) >= grades.indexOf(asked)) return null;
  const name = INTENT_NAMES[intent];
  const has = !grade
    ? 'the student has no grade'
    : grades.includes(grade)
      ? `the student is ${grade}`
      : `“${grade}” is not among the gym’s grades`;
  return `${name[0]!.toUpperCase()}${name.slice(1)} from ${asked} on; ${has}.`;
}
