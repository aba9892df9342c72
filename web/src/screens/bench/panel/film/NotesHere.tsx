'use client';

import { useState } from 'react';
import { MOST_NOTE } from '@sinew/core/analysis/clipDocument';
import { documentOf, strikeOf, useBench, useBenchStore } from '../../document/benchStore';
import { setNote } from '../../document/edits';

/** Where the key for a note leads. */
export const NOTE_FIELD = 'note-here';

/** The coach's own words on the strike in hand and on the film: found again under Films. */
export function NotesHere() {
  const strike = useBench(strikeOf);
  const ofFilm = useBench((state) => documentOf(state).note ?? '');
  return (
    <section aria-label="Notes" className="space-y-3">
      {strike && (
        <Note
          key={strike.id}
          id={NOTE_FIELD}
          label="Note on this strike"
          strikeId={strike.id}
          kept={strike.note ?? ''}
        />
      )}
      <Note
        key="film"
        id={strike ? undefined : NOTE_FIELD}
        label="Note on the film"
        strikeId={null}
        kept={ofFilm}
      />
      <p className="text-sm text-soft">
        Found again by any word of it; a word behind # is a tag: <em>left knee sore #sparring</em>.
      </p>
    </section>
  );
}

function Note({
  id,
  label,
  strikeId,
  kept,
}: {
  id: string | undefined;
  label: string;
  strikeId: string | null;
  kept: string;
}) {
  const store = useBenchStore();
  const [words, setWords] = useState(kept);
  // What is kept has no blanks at its ends, and may have been undone or changed by somebody else.
  const shown = words.trim() === kept ? words : kept;
  /** Kept as it is typed: a closed tab loses no word, and undo takes a whole note. */
  const type = (text: string) => {
    setWords(text);
    if (text.trim() === kept) return;
    const state = store.getState();
    state.edit(setNote(documentOf(state), strikeId, text), `note ${strikeId ?? 'film'}`);
  };
  return (
    <label className="block">
      <span className="mb-1 block text-sm font-semibold">{label}</span>
      <textarea
        id={id}
        rows={2}
        maxLength={MOST_NOTE}
        value={shown}
        onChange={(event) => type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !event.shiftKey) {
            event.preventDefault();
            event.currentTarget.blur();
          }
        }}
        className="w-full border border-soft bg-field p-2"
      />
    </label>
  );
}
