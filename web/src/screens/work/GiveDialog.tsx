'use client';

import { useState } from 'react';
import type { Drill } from '@sinew/core/foundation/drill/drills';
import { CAUTIONS } from '@sinew/core/foundation/drill/demand';
import { INTENT_NAMES, INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
import { STANCES, type Prescription, type Stances } from '@sinew/core/train/work/prescription';
import { AskDialog } from '@/ui/askDialog';
import { SelectField, TextField } from '@/ui/field';
import { give } from './actions';
import { STANCE_NAMES } from './stanceNames';

/** Work as it is about to be given: everything is filled in, and everything can be changed. */
export function GiveDialog({
  studentId,
  worksOn,
  title,
  start,
  drills,
  why,
  onDone,
}: {
  studentId: string;
  worksOn: { readonly technique: string; readonly fault: string } | null;
  title: string;
  start: Prescription;
  drills: readonly Drill[];
  /** What order or gate have against it, as already said. */
  why: readonly string[];
  onDone: () => void;
}) {
  const [work, setWork] = useState(start);
  const [override, setOverride] = useState('');
  const [reasons, setReasons] = useState(why);
  const change = (part: Partial<Prescription>) => setWork((old) => ({ ...old, ...part }));
  const save = async () => {
    const outcome = await give({ ...work, studentId, worksOn, override });
    if (outcome.kind === 'given') return null;
    if (outcome.kind !== 'asks-why') return outcome.reason;
    setReasons(outcome.reasons);
    return override ? outcome.reasons.join(' ') : 'Say why, or change it.';
  };
  return (
    <AskDialog title={title} action="Give the work" onSave={save} onDone={onDone}>
      <SelectField
        label="Drill"
        value={work.drill}
        onChange={(event) => {
          const drill = drills.find(({ id }) => id === event.target.value)!;
          change({ drill: drill.id, name: drill.name, dose: drill.dose });
        }}
      >
        {drills.map((drill) => (
          <option key={drill.id} value={drill.id}>
            {drill.name}
          </option>
        ))}
      </SelectField>
      <TextField
        label="Dose"
        value={work.dose}
        maxLength={120}
        onChange={(event) => change({ dose: event.target.value })}
      />
      <div className="grid grid-cols-2 gap-4">
        <SelectField
          label="Stances"
          value={work.stances}
          onChange={(event) => change({ stances: event.target.value as Stances })}
        >
          {STANCES.map((one) => (
            <option key={one} value={one}>
              {STANCE_NAMES[one]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Meant"
          value={work.intent}
          onChange={(event) => change({ intent: event.target.value as Intent })}
        >
          {INTENTS.map((one) => (
            <option key={one} value={one}>
              {INTENT_NAMES[one]}
            </option>
          ))}
        </SelectField>
      </div>
      <TextField
        label="Moves on when"
        value={work.gate}
        maxLength={200}
        onChange={(event) => change({ gate: event.target.value })}
      />
      <TextField
        label="Film again on"
        type="date"
        value={work.nextCheck}
        onChange={(event) => change({ nextCheck: event.target.value })}
      />
      {(drills.find(({ id }) => id === work.drill)?.asks ?? []).map((one) => (
        <p key={one} className="border-l-4 border-now pl-3 text-sm">
          {CAUTIONS[one]}
        </p>
      ))}
      <p className="text-sm text-soft">
        The dose is Sinew’s own; the coach decides. A new drill begins at a third of it.
      </p>
      {work.intent === 'power' && (
        <p className="border-l-4 border-now pl-3 text-sm">
          Hands wrapped, gloves on, warmed up. Start light; power comes last.
        </p>
      )}
      {reasons.length > 0 && (
        <div className="border-l-4 border-now pl-3">
          <p className="font-semibold">{reasons.join(' ')}</p>
          <TextField
            label="Give it all the same, because"
            value={override}
            maxLength={300}
            onChange={(event) => setOverride(event.target.value)}
          />
        </div>
      )}
    </AskDialog>
  );
}
