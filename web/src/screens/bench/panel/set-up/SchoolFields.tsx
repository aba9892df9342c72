'use client';

import { useMemo, useState } from 'react';
import { changesBetween, type Change } from '@sinew/core/judge/fault/set';
import { judgeMeasured } from '@sinew/core/analysis/analyze';
import { SCHOOLS } from '@sinew/core/judge/school/schools';
import type { Library } from '@sinew/core/judge/library/edits';
import { choicesIn, RANGES, SITUATIONS, type Situation } from '@sinew/core/judge/school/resolve';
import { rulesFor } from '@sinew/core/analysis/rules';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { Changes } from '@/ui/changes';
import { SelectField } from '@/ui/field';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { judgeBy } from '../../document/edits';
import { useAnalysis, useLibrary } from '../../document/useAnalysis';

/** Choices that judge something in this technique. */
function useOffered(technique: string, { catalogue }: Library): readonly string[] {
  return useMemo(() => {
    const cases = catalogue.faults
      .filter(({ techniques }) => techniques.includes(technique))
      .flatMap((fault) => fault.cases)
      .filter(({ techniques }) => !techniques || techniques.includes(technique));
    const asked = choicesIn(cases.map(({ when }) => when));
    return Object.keys(SCHOOLS).filter((key) => key === 'readingOrder' || asked.has(key));
  }, [technique, catalogue]);
}

/** In which school, situation and range this strike is judged; what changes with it is said at once. */
export function SchoolFields({ strike }: { strike: StrikeDocument }) {
  const store = useBenchStore();
  const analysis = useAnalysis();
  const library = useLibrary();
  const student = useBench((state) => state.student);
  const [changes, setChanges] = useState<readonly Change[] | null>(null);
  const offered = useOffered(strike.technique, library);
  const [chosen, setKey] = useState<string | null>(null);
  const key = chosen !== null && offered.includes(chosen) ? chosen : offered[0]!;

  const change = (to: Pick<StrikeDocument, 'school' | 'situation' | 'range'>) => {
    const { edit } = store.getState();
    const next = judgeBy(documentOf(store.getState()), strike.id, to);
    if (analysis) {
      const one = next.strikes.find(({ id }) => id === strike.id)!;
      const rules = rulesFor(one, next.strikes, student, library);
      const after = judgeMeasured(analysis, analysis.facts.strike, rules);
      setChanges(changesBetween(analysis.findings, after));
    }
    edit(next);
  };
  const inForce = analysis?.rules.school[key];
  return (
    <fieldset className="border-t border-ink pt-3">
      <legend className="sr-only">School</legend>
      <h2 className="mb-2 font-semibold">Judged as</h2>
      <div className="grid grid-cols-2 gap-4">
        <SelectField
          label="Situation"
          value={strike.situation ?? 'not-said'}
          onChange={(event) => {
            const situation = event.target.value as Situation;
            change({ situation: situation === 'not-said' ? undefined : situation });
          }}
        >
          {Object.entries(SITUATIONS).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Range"
          value={strike.range ?? ''}
          onChange={(event) =>
            change({ range: RANGES.find((range) => range === event.target.value) })
          }
        >
          <option value="">not said</option>
          {RANGES.map((range) => (
            <option key={range}>{range}</option>
          ))}
        </SelectField>
        <SelectField
          label="School"
          value={key}
          hint={SCHOOLS[key]!.changes}
          onChange={(event) => {
            setKey(event.target.value);
            setChanges(null);
          }}
        >
          {offered.map((id) => (
            <option key={id} value={id}>
              {SCHOOLS[id]!.name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="For this strike"
          value={strike.school?.[key] ?? ''}
          hint={
            inForce &&
            `In force: ${SCHOOLS[key]!.choices.find(({ id }) => id === inForce.choice)?.name}, ${inForce.because}.`
          }
          onChange={(event) => {
            const { [key]: _, ...rest } = strike.school ?? {};
            const school = event.target.value ? { ...rest, [key]: event.target.value } : rest;
            change({ school });
          }}
        >
          <option value="">as the student and the gym have it</option>
          {SCHOOLS[key]!.choices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      </div>
      {changes && <Changes changes={changes} />}
    </fieldset>
  );
}
