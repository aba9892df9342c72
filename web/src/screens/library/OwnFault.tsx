'use client';

import { useState } from 'react';
import { JUDGED_IDS, faultSchema, type Catalogue } from '@sinew/core/judge/fault/schema';
import { unitOf } from '@sinew/core/measure/measures/units';
import { PHASES, type PhaseId } from '@sinew/core/measure/events/phases';
import { SCHOOLS } from '@sinew/core/judge/school/schools';
import { TECHNIQUES, type Link } from '@sinew/core/foundation/technique/techniques';
import { toScreen } from '@/manner/manner';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { LinkField } from './LinkField';
import { readingName } from './readingName';
import { slug } from './slug';
import type { Change } from './change';

const choiceValue = (key: string, choice: string) => `${key} ${choice}`;

function whenOf(value: string): Record<string, string[]> {
  const [key, choice] = value.split(' ') as [string, string];
  return { [key]: [choice] };
}

/** A fault of the gym's own, made of a reading that is measured anyway. */
export function OwnFault({
  catalogue,
  make,
  onDone,
}: {
  catalogue: Catalogue;
  make: Change;
  onDone: (id: string) => void;
}) {
  const [name, setName] = useState('');
  const [reading, setReading] = useState<(typeof JUDGED_IDS)[number]>('return.hand');
  const [is, setIs] = useState<'above' | 'below'>('above');
  const [limit, setLimit] = useState('');
  const [cue, setCue] = useState('');
  const [why, setWhy] = useState('');
  const [drill, setDrill] = useState(catalogue.drills[0]!.id);
  const [link, setLink] = useState<Link>('feet');
  const [phase, setPhase] = useState<PhaseId>('load');
  /** A choice of a school, as `choiceValue` writes it; none: in every school. */
  const [only, setOnly] = useState('');
  const [techniques, setTechniques] = useState<readonly string[]>(['jab', 'cross']);
  const [problem, setProblem] = useState<string | null>(null);
  const { factor, suffix } = toScreen(unitOf(reading));

  const keep = async () => {
    const value = Number(limit.replace(',', '.').replace('−', '-')) / factor;
    const row = {
      id: slug(name),
      name,
      headline: `${name}.`,
      techniques,
      link,
      phase,
      cases: [
        {
          ...(only !== '' && { when: whenOf(only) }),
          limits: [{ reading, is, value }],
          evidence: `${readingName(reading)}: {${reading}}. {limit} is the limit.`,
          clear: `${readingName(reading)}: {${reading}}.`,
        },
      ],
      why,
      cue,
      drill,
    };
    const parsed = faultSchema.safeParse(row);
    if (!parsed.success || limit.trim() === '') {
      setProblem(
        limit.trim() === '' ? 'A limit is needed.' : 'Name, techniques, cue and why are needed.',
      );
      return;
    }
    setProblem(null);
    if (await make({ kind: 'own', fault: parsed.data })) onDone(parsed.data.id);
  };
  return (
    <section aria-label="A leak of your own" className="space-y-4">
      <h2 className="font-serif text-3xl leading-tight">A leak of your own.</h2>
      <div className="grid grid-cols-2 gap-4">
        <TextField
          label="Name"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <SelectField
          label="Reading"
          value={reading}
          onChange={(event) => setReading(event.target.value as typeof reading)}
        >
          {JUDGED_IDS.map((id) => (
            <option key={id} value={id}>
              {readingName(id)}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="It is a leak"
          value={is}
          onChange={(event) => setIs(event.target.value === 'below' ? 'below' : 'above')}
        >
          <option value="above">above the limit</option>
          <option value="below">below the limit</option>
        </SelectField>
        <TextField
          label={`Limit${suffix.trim() ? `, ${suffix.trim()}` : ''}`}
          value={limit}
          inputMode="decimal"
          onChange={(event) => setLimit(event.target.value)}
        />
        <TextField
          label="Cue, to the student"
          value={cue}
          maxLength={200}
          onChange={(event) => setCue(event.target.value)}
        />
        <TextField
          label="Why it costs"
          value={why}
          maxLength={300}
          onChange={(event) => setWhy(event.target.value)}
        />
        <LinkField label="Link" link={link} onLink={setLink} />
        <SelectField
          label="Phase"
          value={phase}
          onChange={(event) => setPhase(event.target.value as PhaseId)}
        >
          {PHASES.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Judged" value={only} onChange={(event) => setOnly(event.target.value)}>
          <option value="">in every school</option>
          {Object.entries(SCHOOLS).map(([key, { name: school, choices }]) => (
            <optgroup key={key} label={school}>
              {choices.map((choice) => (
                <option key={choice.id} value={choiceValue(key, choice.id)}>
                  only with: {choice.name}
                </option>
              ))}
            </optgroup>
          ))}
        </SelectField>
        <SelectField label="Drill" value={drill} onChange={(event) => setDrill(event.target.value)}>
          {catalogue.drills.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      </div>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Strikes</legend>
        <div className="grid grid-cols-4 gap-x-4 gap-y-1">
          {TECHNIQUES.map((technique) => (
            <label key={technique.id} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={techniques.includes(technique.id)}
                onChange={(event) =>
                  setTechniques(
                    event.target.checked
                      ? [...techniques, technique.id]
                      : techniques.filter((id) => id !== technique.id),
                  )
                }
                className="size-4 accent-ink"
              />
              {technique.name}
            </label>
          ))}
        </div>
      </fieldset>
      {problem && <p className="font-semibold text-now">{problem}</p>}
      <Button weight="main" onClick={() => void keep()}>
        Keep the leak
      </Button>
    </section>
  );
}
