/** From a fault to work: which drill, how much, how hard, until what shows, looked at again when. */
import type { Day } from '../../foundation/calendar/day';
import { daysBetween, plusDays } from '../../foundation/calendar/day';
import type { Drill } from '../../foundation/drill/drills';
import { drillById } from '../../foundation/drill/drills';
import type { Catalogue, Fault } from '../../judge/fault/schema';
import { CHAIN } from '../../foundation/technique/techniques';
import { CLEAN_SETS } from './gate';
import { isHarder, type Intent } from '../../foundation/drill/intent';

/** Looked at again after so many days, or so many times worked: whichever comes first. */
export const CHECK_DAYS = 7;
export const CHECK_SESSIONS = 3;
/** Strikes that a retest is made of. */
export const RETEST_STRIKES = 5;

export const STANCES = ['both', 'own', 'other'] as const;
export type Stances = (typeof STANCES)[number];

export interface Prescription {
  readonly drill: string;
  readonly name: string;
  readonly dose: string;
  readonly stances: Stances;
  readonly intent: Intent;
  /** What must show before moving on. */
  readonly gate: string;
  readonly nextCheck: Day;
}

/** A link further on is worked only when those before it are clean, in the school's order. */
export type BuildOrder = 'ground-up' | 'top-down';

/** The faults that come before this one, first first. */
export function comesBefore(
  fault: Fault,
  open: readonly Fault[],
  order: BuildOrder,
): readonly Fault[] {
  const place = ({ link }: Fault) => CHAIN.indexOf(link) * (order === 'top-down' ? -1 : 1);
  return open
    .filter((one) => one.id !== fault.id && place(one) < place(fault))
    .sort((a, b) => place(a) - place(b));
}

/** What the catalogue prescribes for a fault: slow, both stances, until three sets are clean of it. */
export function prescriptionFor(fault: Fault, catalogue: Catalogue, today: Day): Prescription {
  const drill = drillById(fault.drill, catalogue.drills)!;
  return {
    ...fromDrill(drill, today),
    gate: `${CLEAN_SETS} clean sets in a row: no “${fault.name}” in 8 of 10.`,
  };
}

/** A drill given for itself. */
export function fromDrill(drill: Drill, today: Day): Prescription {
  return {
    drill: drill.id,
    name: drill.name,
    dose: drill.dose,
    stances: 'both',
    intent: 'slow',
    gate: `${CLEAN_SETS} clean sets in a row.`,
    nextCheck: plusDays(today, CHECK_DAYS),
  };
}

/** @returns why this intent may not be prescribed, or null */
export function tooHard(intent: Intent, level: Intent): string | null {
  return isHarder(intent, level) ? `The gate stands at ${level}.` : null;
}

export interface Check {
  readonly isDue: boolean;
  /** Negative when it was due before today. */
  readonly days: number;
  readonly because: 'day' | 'sessions' | null;
}

/** Whether it is time to film again. @param sessions days on which it was worked since it was given */
export function checkOf(nextCheck: Day, sessions: number, today: Day): Check {
  const days = daysBetween(today, nextCheck);
  if (days <= 0) return { isDue: true, days, because: 'day' };
  if (sessions >= CHECK_SESSIONS) return { isDue: true, days: 0, because: 'sessions' };
  return { isDue: false, days, because: null };
}
