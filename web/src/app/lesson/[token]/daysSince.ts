import { daysBetween, plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import type { CardOf } from '@/data/finding/card';

/** Boxes go back this far, so that a forgotten day can still be ticked. */
const BACK = 13;

/** The card with boxes from when the work was given: who comes back to a page sees what was ticked before. */
export function withDaysSince(card: CardOf, day: Day): CardOf {
  const cues = card.cues.map((one) => {
    const given = one.work.map(({ givenOn }) => givenOn).sort()[0] ?? day;
    const back = Math.min(BACK, Math.max(0, daysBetween(given, day)));
    const before = Array.from({ length: back }, (_, i) => plusDays(day, i - back));
    return { ...one, days: [...before, ...(one.days.length > 0 ? one.days : [day])] };
  });
  return { ...card, cues };
}
