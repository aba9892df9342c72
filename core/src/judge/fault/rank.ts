/** In which order findings are told: what hurts, what costs most, then as the school reads the body. */
import { PHASES } from '../../measure/events/phases';
import { CHAIN } from '../../foundation/technique/techniques';
import { dearer, isKnown, isTie } from './cost';
import type { Finding, Outcome, Rules } from './finding';
import type { Fault } from './schema';

const ORDER: Record<Outcome, number> = { found: 0, 'cant-tell': 1, clear: 2 };

/**
 * Found before can't tell before clear; among them injuries first; then by cost, where costs are
 * known and can be told apart; else from the ground up or from the shoulders down.
 */
export function ranked<T extends Finding>(findings: readonly T[], rules: Rules): T[] {
  const place = new Map(rules.catalogue.faults.map((fault) => [fault.id, placeOf(fault, rules)]));
  const sorted = [...findings].sort(
    (a, b) =>
      ORDER[a.status] - ORDER[b.status] ||
      Number(b.injury) - Number(a.injury) ||
      Number(isKnown(b.cost)) - Number(isKnown(a.cost)) ||
      (isKnown(a.cost) && isKnown(b.cost) ? dearer(b.cost, a.cost) : 0) ||
      place.get(a.fault)! - place.get(b.fault)!,
  );
  return withTiesRead(sorted, place);
}

/** Neighbours whose costs cannot be told apart stand in the order of the reading. */
function withTiesRead<T extends Finding>(sorted: T[], place: ReadonlyMap<string, number>): T[] {
  const read = [...sorted];
  for (let pass = 0; pass < read.length; pass++) {
    for (let i = 1; i < read.length; i++) {
      const [a, b] = [read[i - 1]!, read[i]!];
      const isSame = a.status === b.status && a.injury === b.injury;
      if (!isSame || !isKnown(a.cost) || !isKnown(b.cost) || !isTie(a.cost, b.cost)) continue;
      if (place.get(a.fault)! > place.get(b.fault)!) [read[i - 1], read[i]] = [b, a];
    }
  }
  return read;
}

/** From the ground up by phase and link; from the shoulders down by link, then phase. */
function placeOf({ phase, link }: Fault, { school }: Rules): number {
  const when = PHASES.findIndex(({ id }) => id === phase);
  const where = CHAIN.indexOf(link);
  return school.readingOrder?.choice === 'top-down'
    ? (CHAIN.length - where) * PHASES.length + when
    : when * CHAIN.length + where;
}
