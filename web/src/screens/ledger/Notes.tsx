'use client';

import { useState } from 'react';
import { pastDay } from '@/data/database/today';
import { toast } from 'sonner';
import type { Note } from '@/data/progress/ledger';
import { setPutAway } from '@/screens/student/actions';
import { Button } from '@/ui/button';
import { note } from './actions';

/** What no camera sees, in the coach's words. */
export function Notes({
  studentId,
  notes,
  technique,
  today,
}: {
  studentId: string;
  notes: readonly Note[];
  technique: string | null;
  today: string;
}) {
  const [text, setText] = useState('');
  const save = async () => {
    const wrong = await note({ studentId, technique, day: today, text }).catch(
      () => 'Not saved: the server does not answer. Your words are still here; try again.',
    );
    if (wrong) toast(wrong);
    else setText('');
  };
  const remove = async (id: string) => {
    try {
      await setPutAway('note', id, true);
      toast('The note is put away.', {
        action: { label: 'Bring it back', onClick: () => void setPutAway('note', id, false) },
      });
    } catch {
      toast('Not deleted: the server does not answer. Try again.');
    }
  };
  return (
    <section aria-label="Notes">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Notes</h2>
      <form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <textarea
          aria-label="A new note"
          rows={2}
          maxLength={2000}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="w-full border border-soft bg-field p-2"
        />
        <Button type="submit" disabled={text.trim() === ''}>
          Keep the note
        </Button>
      </form>
      <ul className="mt-2">
        {notes.map((one) => (
          <li key={one.id} className="border-b border-rule py-2">
            <p className="whitespace-pre-wrap">{one.text}</p>
            <p className="flex gap-4 text-sm text-soft">
              {pastDay(one.day)}
              <Button
                weight="quiet"
                className="!min-h-6 text-sm"
                onClick={() => void remove(one.id)}
              >
                Delete
              </Button>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
