'use client';

import { useState } from 'react';
import { JUDGED_IDS, faultSchema, type Catalogue } from '@sinew/core/judge/fault/schema';
import { unitOf } from '@sinew/core/measure/measures/units';
import { PHASES } from '@sinew/core/measure/events/phases';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { toScreen } from '@/manner/manner';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { readingName } from './readingName';
import type { Change } from './change';

const slug = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z]+/g, '-')
    .replace(/^-|-$/g, '');

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
      link: 'feet',
      phase: PHASES[0].id,
      cases: [
        {
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
