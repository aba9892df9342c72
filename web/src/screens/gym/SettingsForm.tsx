'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { INTENT_NAMES, INTENTS } from '@sinew/core/foundation/drill/intent';
import type { Settings } from '@/data/gym/gym';
import { DAY_ORDERS, MEASURES, type Manner } from '@/manner/manner';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { keepSettings } from './actions';

/** Name, class, grades, and the grade from which each speed is allowed. */
export function SettingsForm({ settings }: { settings: Settings }) {
  const [name, setName] = useState(settings.name);
  const [className, setClassName] = useState(settings.className);
  const [grades, setGrades] = useState(settings.grades.join(', '));
  const [from, setFrom] = useState<Settings['from']>(settings.from);
  const [manner, setManner] = useState(settings.manner);
  const list = grades
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);
  const save = async () => {
    const known = Object.fromEntries(
      Object.entries(from).filter(([, grade]) => grade && list.includes(grade)),
    );
    const wanted = { ...settings, name, className, grades: list, from: known, manner };
    const wrong = await keepSettings(wanted, settings).catch(() => LOST);
    toast(wrong ?? 'Kept.');
    // Every number and date on the page is written anew.
    const { measures, days } = settings.manner;
    if (!wrong && (measures !== manner.measures || days !== manner.days)) window.location.reload();
  };
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">The gym</h2>
      <div className="grid grid-cols-2 gap-4">
        <TextField
          label="Name"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          label="Class on the Floor"
          value={className}
          maxLength={80}
          onChange={(event) => setClassName(event.target.value)}
        />
      </div>
      <TextField
        label="Grades, the lowest first"
        value={grades}
        hint="With commas between, as they stand on the students’ pages."
        onChange={(event) => setGrades(event.target.value)}
      />
      <div className="grid gap-4 sm:grid-cols-3">
        {INTENTS.slice(1).map((intent) => (
          <SelectField
            key={intent}
            label={`From which grade: ${INTENT_NAMES[intent]}`}
            value={from[intent] ?? ''}
            onChange={(event) => setFrom((old) => ({ ...old, [intent]: event.target.value }))}
          >
            <option value="">any</option>
            {list.map((grade) => (
              <option key={grade} value={grade}>
                {grade}
              </option>
            ))}
          </SelectField>
        ))}
      </div>
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          label="Measures"
          value={manner.measures}
          hint="As everybody reads and types them; files keep metres and kilograms."
          onChange={(event) =>
            setManner((old) => ({ ...old, measures: event.target.value as Manner['measures'] }))
          }
        >
          {Object.entries(MEASURES).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Days"
          value={manner.days}
          onChange={(event) =>
            setManner((old) => ({ ...old, days: event.target.value as Manner['days'] }))
          }
        >
          {Object.entries(DAY_ORDERS).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      </div>
      <p className="text-sm text-soft">
        Beside the grade, each step needs three clean sets in a row; what can hurt shuts the gate
        until you clear it.
      </p>
      <Button type="submit" weight="main">
        Keep
      </Button>
    </form>
  );
}
