/** A set of strikes of one kind, judged as one; and what a change of rules changes. */
import { NO_LOOKS } from '../eye/blindLook';
import { isKnown, isTimed, type KnownCost, type TimeCost } from './cost';
import type { Finding, Outcome, Rules } from './finding';
import { judge } from './judge';
import { ranked } from './rank';
import { FEWEST, medianReadings, setReadings } from '../../measure/measures/set';
import type { Readings } from '../../measure/measures/allMeasures';
import type { Technique } from '../../foundation/technique/techniques';
import { median } from 'd3-array';

export interface SetFinding extends Finding {
  /** How many of the strikes show it by themselves, how many it could be told of. */
  readonly shows: number;
  readonly told: number;
  readonly of: number;
  /** Told by the median of the set; else because all strikes that can be told agree. */
  readonly isByMedian: boolean;
  /** What each strike says by itself, in their order; null where it has no word. */
  readonly each: readonly (Outcome | null)[];
}

export interface SetVerdict {
  readonly readings: Readings;
  readonly findings: readonly SetFinding[];
  /** Fewer strikes than make a set: a first word, not a verdict. */
  readonly isProvisional: boolean;
}

/**
 * @param strikes readings and findings of each strike, in the order in which they were thrown
 */
export function judgeSet(
  technique: Technique,
  strikes: readonly { readonly readings: Readings; readonly findings: readonly Finding[] }[],
  rules: Rules,
): SetVerdict {
  const all = strikes.map(({ readings }) => readings);
  const readings = medianReadings(all);
  // A look is of one strike.
  const ofSet = { ...rules, eye: NO_LOOKS };
  const judged = judge(technique, { ...readings, ...setReadings(all) }, ofSet);
  const findings = judged.map((finding): SetFinding => {
    const own = strikes.map(({ findings }) => findings.find((f) => f.fault === finding.fault));
    const each = own.map((one) => one?.status ?? null);
    const costs = own.map((one) => one?.cost ?? null);
    const agreed = finding.status === 'cant-tell' ? unanimous(own) : null;
    return {
      ...(agreed ?? finding),
      isByMedian: agreed === null,
      each,
      shows: each.filter((one) => one === 'found').length,
      told: each.filter((one) => one === 'found' || one === 'clear').length,
      of: strikes.length,
      cost: medianCost(costs.filter(isKnown)) ?? medianTime(costs.filter(isTimed)) ?? finding.cost,
    };
  });
  return {
    readings,
    findings: ranked(findings, rules),
    isProvisional: strikes.length < FEWEST,
  };
}

/** Each part of it by itself: the middle strike's loss, range and share. */
function medianCost(costs: readonly KnownCost[]): KnownCost | null {
  if (costs.length === 0) return null;
  const of = (part: 'share' | 'shareLow' | 'shareHigh') => median(costs, (cost) => cost[part])!;
  const amount = (part: 'lost' | 'low' | 'high') => median(costs, (cost) => cost[part]) ?? null;
  return {
    share: of('share'),
    shareLow: of('shareLow'),
    shareHigh: of('shareHigh'),
    lost: amount('lost'),
    low: amount('low'),
    high: amount('high'),
  };
}

function medianTime(costs: readonly TimeCost[]): TimeCost | null {
  const [first] = costs;
  if (!first) return null;
  const of = (part: 'seconds' | 'secondsLow' | 'secondsHigh') =>
    median(costs, (cost) => cost[part])!;
  return {
    seconds: of('seconds'),
    secondsLow: of('secondsLow'),
    secondsHigh: of('secondsHigh'),
    of: first.of,
  };
}

/** Where every strike that can be told says the same, and enough of them do, the scatter does not matter. */
function unanimous(own: readonly (Finding | undefined)[]): Finding | null {
  const told = own.filter((one) => one?.status === 'found' || one?.status === 'clear');
  const [first] = told;
  if (told.length < FEWEST || told.some((one) => one?.status !== first!.status)) return null;
  return told[told.length >> 1]!;
}

export interface Change {
  readonly fault: string;
  readonly name: string;
  /** Null: not judged in that school. */
  readonly before: Outcome | null;
  readonly after: Outcome | null;
}

/** What is said otherwise after the rules have changed; findings that stay the same are left out. */
export function changesBetween(
  before: readonly Finding[],
  after: readonly Finding[],
): readonly Change[] {
  const ids = [...new Set([...before, ...after].map(({ fault }) => fault))];
  return ids.flatMap((fault) => {
    const [old, now] = [before, after].map((all) => all.find((one) => one.fault === fault));
    if (old?.status === now?.status) return [];
    return [
      { fault, name: (now ?? old)!.name, before: old?.status ?? null, after: now?.status ?? null },
    ];
  });
}
