import { useEffect, useMemo, useState } from 'react';
import { ranked } from '@sinew/core/judge/fault/rank';
import type { Finding } from '@sinew/core/judge/fault/judge';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { BenchAnalysis } from '@/data/bench/benchAnalysis';
import { useBench } from './benchStore';
import { chainModel } from '../panel/what-if/chainModel';

/** Milliseconds of quiet before the model is asked. */
const QUIET = 250;

/** The findings with what each costs; first without, until the model has been run beside the page. */
export function useCosts(
  analysis: BenchAnalysis | null,
  technique: string | null,
): BenchAnalysis | null {
  const student = useBench((state) => state.student);
  const [costed, setCosted] = useState<{ of: unknown; findings: readonly Finding[] } | null>(null);
  const found = analysis?.findings.filter(({ status }) => status === 'found') ?? [];
  const isAsked = found.length > 0;
  useEffect(() => {
    if (!analysis || !technique || !isAsked) return;
    let isStale = false;
    const timer = setTimeout(() => {
      const { events, readings, findings, rules } = analysis;
      const strike = { technique: techniqueById(technique), events, readings, findings };
      chainModel()
        .withCosts(strike, { mass: student.massKg, height: student.heightM }, rules)
        .then((withCost) => {
          if (!isStale) setCosted({ of: analysis, findings: withCost });
        })
        .catch(() => undefined);
    }, QUIET);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [analysis, technique, isAsked, student]);
  return useMemo(() => {
    if (!analysis || !costed) return analysis;
    if (costed.of === analysis) return { ...analysis, findings: costed.findings };
    // While the model runs again, what it said last of the same leak stands.
    const known = new Map(costed.findings.map(({ fault, cost }) => [fault, cost]));
    const findings = analysis.findings.map((finding) =>
      finding.status === 'found' ? { ...finding, cost: known.get(finding.fault) ?? null } : finding,
    );
    return { ...analysis, findings: ranked(findings, analysis.rules) };
  }, [analysis, costed]);
}
