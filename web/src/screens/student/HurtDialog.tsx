'use client';

import { nanoid } from 'nanoid';
import { useState } from 'react';
import {
  HURT_NAMES,
  HURT_PLACES,
  whatToDo,
  type HurtPlace,
} from '@sinew/core/train/work/condition';
import { AskDialog } from '@/ui/askDialog';
import { SelectField, TextField } from '@/ui/field';
import { noteHurtOf } from './hurtActions';

/** Something hurts: what to do is said at once, and what is noted shuts the gate. */
export function HurtDialog({
  students,
  today,
  action = 'Note it',
  onNoted,
  onDone,
}: {
  /** Whom it may be; with one it is asked for no name. */
  students: readonly { readonly id: string; readonly name: string }[];
  today: string;
  action?: string;
  onNoted?: () => void;
  onDone: () => void;
}) {
  const [id] = useState(() => nanoid());
  const [studentId, setStudentId] = useState(students.length === 1 ? students[0]!.id : '');
  const [place, setPlace] = useState<HurtPlace>('head');
  const [words, setWords] = useState('');
  const save = async () => {
    if (!studentId) return 'Who is it?';
    const wrong = await noteHurtOf({ id, studentId, day: today, place, words });
    if (wrong === null) onNoted?.();
    return wrong;
  };
  return (
    <AskDialog
      title="Something hurts."
      action={action}
      leave="Cancel"
      onSave={save}
      onDone={onDone}
    >
      <p role="status" className="border-l-4 border-now pl-3 text-lg font-semibold">
        {whatToDo(place)}
      </p>
      {students.length > 1 && (
        <SelectField
          label="Who?"
          value={studentId}
          onChange={(event) => setStudentId(event.target.value)}
        >
          <option value="">choose</option>
          {students.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      )}
      <SelectField
        label="Where?"
        value={place}
        onChange={(event) => setPlace(event.target.value as HurtPlace)}
      >
        {HURT_PLACES.map((one) => (
          <option key={one} value={one}>
            {HURT_NAMES[one]}
          </option>
        ))}
      </SelectField>
      <TextField
        label="What happened"
        value={words}
        maxLength={300}
        onChange={(event) => setWords(event.target.value)}
      />
      <p className="text-soft">
        The gate stays at slow until you say that it is over. Sinew gives no medical advice.
      </p>
    </AskDialog>
  );
}
