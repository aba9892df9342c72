import { useEffect, useMemo, useState } from 'react';
import type { MeasuredInClip } from '@sinew/core/analysis/analyzeClip';
import type { Cost } from '@sinew/core/judge/fault/cost';
import type { Finding, Rules } from '@sinew/core/judge/fault/finding';
import { chainModel } from '../panel/what-if/chainModel';

/** Milliseconds of quiet before the model is asked. */
const QUIET = 250;

type Costs = ReadonlyMap<string, Cost | null>;

const NONE: Costs = new Map();

/**
 * Third step: what each fault that was found costs, worked out beside the page. While it runs again,
 * what it said last of the same fault stands; until it has run, nothing.
 */
export function useCosts(
  measured: MeasuredInClip | null,
  findings: readonly Finding[],
  rules: Rules | null,
): Costs {
  const [costs, setCosts] = useState(NONE);
  const found = useMemo(() => findings.filter(({ status }) => status === 'found'), [findings]);
  useEffect(() => {
    if (!measured || !rules || found.length === 0) return;
    let isStale = false;
    const timer = setTimeout(() => {
      chainModel()
        .costedFindings(measured, found, measured.facts, rules)
        .then((costed) => {
          if (!isStale) setCosts(new Map(costed.map(({ fault, cost }) => [fault, cost])));
        })
        .catch(() => undefined);
    }, QUIET);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [measured, found, rules]);
  return useMemo(() => {
    const ids = new Set(found.map(({ fault }) => fault));
    return new Map([...costs].filter(([fault]) => ids.has(fault)));
  }, [costs, found]);
}
