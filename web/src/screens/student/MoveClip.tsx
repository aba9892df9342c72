'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ClipSummary } from '@/data/clip/clips';
import { AskDialog } from '@/ui/askDialog';
import { SelectField } from '@/ui/field';
import { moveTo } from './actions';
import { ask } from '@/api/client';
import { STUDENTS } from '@/api/endpoints';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** A clip that was added to the wrong student. */
export function MoveClip({ clip, onDone }: { clip: ClipSummary; onDone: () => void }) {
  const [students, setStudents] = useState<readonly Named[]>([]);
  const [to, setTo] = useState('');
  useEffect(() => {
    ask(STUDENTS, []).then(
      (all) => setStudents(all.filter(({ id }) => id !== clip.studentId)),
      () => setStudents([]),
    );
  }, [clip.studentId]);
  const move = async () => {
    const student = students.find(({ id }) => id === to);
    if (!student) return 'Whose is it? Choose a student.';
    const outcome = await moveTo(clip.id, to);
    if ('problem' in outcome) return outcome.problem;
    const what = outcome.moved > 1 ? 'It and the film joined to it are' : 'It is';
    toast(`${what} with ${student.name} now.`);
    return null;
  };
  return (
    <AskDialog title="Whose film is it?" action="Move it" onSave={move} onDone={onDone}>
      <p>
        All that was marked on it goes along, and a film joined to it. A cue that came from it ends;
        work that was given stays where it is.
      </p>
      <SelectField label="It shows" value={to} onChange={(event) => setTo(event.target.value)}>
        <option value="">Choose a student</option>
        {students.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
    </AskDialog>
  );
}
