'use client';

import { useState } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { Gate } from '@sinew/core/train/work/gate';
import { INTENT_NAMES, INTENTS, isHarder, type Intent } from '@sinew/core/foundation/drill/intent';
import { AskDialog } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { setGate } from './actions';

/** How hard a student may strike: the four steps, those open filled, and what the next one waits for. */
export function GateSteps({
  studentId,
  technique,
  gate,
}: {
  studentId: string;
  technique: string;
  gate: Gate;
}) {
  const [isAsking, setAsking] = useState(false);
  const { name } = techniqueById(technique);
  return (
    <div className="border-t border-rule py-3">
      <div className="flex items-baseline justify-between">
        <h3 className="font-semibold">{name}</h3>
        {!gate.isShutByInjury && (
          <Button weight="quiet" className="!min-h-6 text-sm" onClick={() => setAsking(true)}>
            Override
          </Button>
        )}
      </div>
      <ol className="mt-1.5 grid grid-cols-4 gap-1.5" aria-label={`Speed gate of the ${name}`}>
        {INTENTS.map((intent) => {
          const isOpen = !isHarder(intent, gate.level);
          return (
            <li key={intent} className="text-sm">
              <span
                aria-hidden
                className={`block h-2.5 ${isOpen ? 'bg-ink' : 'border border-ink'}`}
              />
              <span className={intent === gate.level ? 'font-semibold' : 'text-soft'}>
                {intent}
                <span className="sr-only">{isOpen ? ', open' : ', shut'}</span>
              </span>
            </li>
          );
        })}
      </ol>
      <p className={`mt-1 text-sm ${gate.isShutByInjury ? 'font-semibold text-now' : 'text-soft'}`}>
        {gate.shut ??
          (gate.next
            ? `${gate.cleanSets} of ${gate.needed} clean sets in a row to ${gate.next}.`
            : 'Open as far as it goes.')}
      </p>
      {isAsking && (
        <Override
          studentId={studentId}
          technique={technique}
          level={gate.level}
          onDone={() => setAsking(false)}
        />
      )}
    </div>
  );
}

function Override({
  studentId,
  technique,
  level,
  onDone,
}: {
  studentId: string;
  technique: string;
  level: Intent;
  onDone: () => void;
}) {
  const [to, setTo] = useState<Intent>(level);
  const [reason, setReason] = useState('');
  return (
    <AskDialog
      title="Set the gate by hand."
      action="Set the gate"
      leave="Leave it"
      onSave={() => setGate({ studentId, technique, to, reason })}
      onDone={onDone}
    >
      <SelectField
        label="Allowed up to"
        value={to}
        onChange={(event) => setTo(event.target.value as Intent)}
      >
        {INTENTS.map((intent) => (
          <option key={intent} value={intent}>
            {INTENT_NAMES[intent]}
          </option>
        ))}
      </SelectField>
      <TextField
        label="Because"
        value={reason}
        maxLength={300}
        autoFocus
        onChange={(event) => setReason(event.target.value)}
      />
    </AskDialog>
  );
}
