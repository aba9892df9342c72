/**
 * Who leaves out what: by age, by grade, by what can hurt, by what hurt. Injury flags outrank power.
 *
 * The rules are Sinew's own cautions, no medical advice; a licensed clinician has the last word on pain
 * and on blows to the head.
 */
import type { Day } from '../../foundation/calendar/day';
import { shortDay } from '../../foundation/calendar/day';
import type { Demand } from '../../foundation/drill/demand';
import { isHarder, type Intent } from '../../foundation/drill/intent';

export const HURT_PLACES = ['head', 'neck-back', 'hand-wrist', 'elbow', 'knee', 'other'] as const;
export type HurtPlace = (typeof HURT_PLACES)[number];

export const HURT_NAMES: Readonly<Record<HurtPlace, string>> = {
  head: 'head contact or dizziness',
  'neck-back': 'neck or back',
  'hand-wrist': 'hand or wrist',
  elbow: 'elbow',
  knee: 'knee',
  other: 'pain',
};

/** Something hurt, and the coach has not said that it is over. */
export interface HurtNote {
  readonly place: HurtPlace;
  readonly day: Day;
}

export interface Condition {
  /** Under 16, or of an age that nobody knows. */
  readonly isJunior: boolean;
  /** Empty for none. */
  readonly grade: string;
  /** Names of faults that can hurt and are not cleared. */
  readonly injuries: readonly string[];
  readonly hurts: readonly HurtNote[];
}

export const SOUND: Condition = { isJunior: false, grade: '', injuries: [], hurts: [] };

export const NO_POWER_UNDER_16 = 'No full power under 16: bones are still growing.';
export const POWER_NEEDS_GRADE = 'Full power needs a grade; the student has none.';

/** What is worked: how hard it is meant, and what it asks. */
export interface Asked {
  readonly intent: Intent;
  readonly asks: readonly Demand[];
}

/** What to do at once, as it is said on the timer. */
export function whatToDo(place: HurtPlace): string {
  return place === 'head'
    ? 'Stop for today. Somebody stays with them; see a licensed clinician. Back to contact only on their word and by the rules of your sport’s body.'
    : 'Stop. If it is more than a knock, or there is numbness, see a licensed clinician. Sinew gives no medical advice.';
}

/** "knee, noted on Tue 3 Jun" */
export function hurtInWords({ place, day }: HurtNote): string {
  return `${HURT_NAMES[place]}, noted on ${shortDay(day)}`;
}

/** @returns why not more than slow, as a sentence; null when nothing hurts and nothing can */
export function slowOnly({ injuries, hurts }: Condition): string | null {
  if (hurts.length > 0) {
    const all = hurts.map(hurtInWords).join('; ');
    return `Slow only: ${all}. The gate stays shut until you say that it is over.`;
  }
  if (injuries.length === 0) return null;
  return `Slow only: ${injuries.join(', ')} can hurt. Clear it on the bench first.`;
}

/** What a student takes home of all this: what is left out, and while what hurts. */
export function heededBy(condition: Condition): string[] {
  const slow = slowOnly(condition);
  const who = condition.isJunior ? 'Under 16' : condition.grade === '' ? 'Without a grade' : null;
  return [
    ...(slow ? [slow] : []),
    ...(who ? [`${who}: no full power, no holds, no weights in the hand.`] : []),
  ];
}

/**
 * Why a student leaves this out. A grade that is missing is the coach's to overrule; the rest is not.
 *
 * @returns a sentence without the name, or null
 */
export function leavesOut({ intent, asks }: Asked, condition: Condition): string | null {
  const { isJunior, grade, hurts } = condition;
  const has = (...some: readonly Demand[]) => some.some((one) => asks.includes(one));
  const hurtsAt = (place: HurtPlace) => hurts.find((one) => one.place === place);
  const [head, neck, knee] = [hurtsAt('head'), hurtsAt('neck-back'), hurtsAt('knee')];
  if (head && (has('impact', 'hold', 'weights', 'rotation') || isHarder(intent, 'slow'))) {
    return `${hurtInWords(head)}: nothing hard, no contact`;
  }
  if (neck && has('rotation')) return `${hurtInWords(neck)}: no turns of the trunk`;
  if (knee && has('twist')) return `${hurtInWords(knee)}: no foot pressed flat under a turn`;
  if (isHarder(intent, 'slow') && hurts.length > 0) return `${hurtInWords(hurts[0]!)}: slow only`;
  if (intent === 'power' && condition.injuries.length > 0) {
    return `${condition.injuries.join(', ')} can hurt and is not cleared: no power`;
  }
  const isHeavy = intent === 'power' || has('hold', 'weights');
  const what = intent === 'power' ? 'no power' : has('hold') ? 'no holds' : 'no weights';
  if (isHeavy && isJunior) return `under 16: ${what}`;
  if (isHeavy && grade === '') return `no grade: ${what}`;
  return null;
}
