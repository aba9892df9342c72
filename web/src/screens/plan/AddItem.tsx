'use client';

import { useState } from 'react';
import { AskDialog } from '@/ui/askDialog';
import { SelectField, TextField } from '@/ui/field';
import { plan } from './actions';

const RETEST = 'retest';
const NOTE = 'note';

/** Plans a session, a film or anything else on a day. */
export function AddItem({
  day: first,
  students,
  sessions,
  onDone,
}: {
  day: string;
  sessions: readonly { readonly id: string; readonly name: string }[];
  students: readonly { readonly id: string; readonly name: string }[];
  onDone: () => void;
}) {
  const [day, setDay] = useState(first);
  const [what, setWhat] = useState(sessions[0]!.id);
  const [title, setTitle] = useState('');
  const [studentId, setStudentId] = useState('');
  const session = sessions.find(({ id }) => id === what) ?? null;
  const save = () =>
    plan({
      day,
      kind: session ? 'session' : what === RETEST ? 'retest' : 'note',
      session: session?.id ?? null,
      title: title.trim() || (session?.name ?? (what === RETEST ? 'Film again' : '')),
      studentId: studentId || null,
    });
  return (
    <AskDialog title="What is planned?" action="Plan it" onSave={save} onDone={onDone}>
      <SelectField label="What" value={what} onChange={(event) => setWhat(event.target.value)}>
        {sessions.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        <option value={RETEST}>Film again</option>
        <option value={NOTE}>Something else</option>
      </SelectField>
      <TextField
        label="In your words"
        value={title}
        maxLength={120}
        placeholder={session?.name ?? (what === RETEST ? 'Film again' : '')}
        onChange={(event) => setTitle(event.target.value)}
      />
      <div className="grid grid-cols-2 gap-4">
        <TextField
          label="On"
          type="date"
          value={day}
          onChange={(event) => setDay(event.target.value)}
        />
        <SelectField
          label="For"
          value={studentId}
          onChange={(event) => setStudentId(event.target.value)}
        >
          <option value="">the class</option>
          {students.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      </div>
    </AskDialog>
  );
}
