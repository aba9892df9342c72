'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Cue } from '@/data/finding/findings';
import { Button, LinkButton } from '@/ui/button';
import { rewordCue } from '../../document/actions';
import { useCommands } from '@/ui/commands/registry';
import { TalkButton } from '../../talk/TalkOver';
import { useGiveWork } from './useGiveWork';

/** The one cue in work for this strike; its words are the coach's to change. */
export function CueOfTheDay({ cue, strikeId }: { cue: Cue; strikeId: string }) {
  const router = useRouter();
  const [isEditing, setEditing] = useState(false);
  const [text, setText] = useState(cue.text);
  const giveWork = useGiveWork();
  const work = () => giveWork(cue);
  const review = `/students/${cue.studentId}/card#review`;
  useCommands(() => [
    {
      id: 'review',
      keys: ['Shift+r'],
      words: 'make a review to send home',
      group: 'Leaks',
      isOn: !isEditing,
      run: () => router.push(review),
    },
    {
      id: 'work',
      keys: ['u'],
      words: 'give the work for the cue',
      group: 'Leaks',
      isOn: !isEditing && !cue.isWorked,
      run: () => void work(),
    },
  ]);
  const save = async () => {
    try {
      const problem = await rewordCue(cue.id, text, cue.text);
      if (problem) toast(problem);
      else setEditing(false);
    } catch {
      toast('Not saved: the server does not answer. Your words are still here; try again.');
    }
  };
  return (
    <div data-cue-of-the-day className="border-t border-ink px-5 pt-3 pb-4">
      <div className="mb-1 flex flex-wrap items-center gap-x-4 text-sm">
        <h2 className="font-semibold text-soft">Cue</h2>
        {!isEditing && (
          <Button weight="quiet" className="!min-h-6" onClick={() => setEditing(true)}>
            Reword
          </Button>
        )}
        <LinkButton weight="quiet" className="!min-h-6" href={`/students/${cue.studentId}/card`}>
          Card
        </LinkButton>
        <LinkButton weight="quiet" className="!min-h-6" href={review} hint="Shift R">
          Review
        </LinkButton>
        <TalkButton />
      </div>
      {isEditing ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <textarea
            aria-label="Cue"
            autoFocus
            rows={2}
            maxLength={200}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                event.preventDefault();
                void save();
              }
              if (event.key === 'Escape') {
                setText(cue.text);
                setEditing(false);
              }
            }}
            className="w-full border border-soft bg-field p-2 font-serif text-xl"
          />
          <Button type="submit" weight="main">
            Save the cue
          </Button>
        </form>
      ) : (
        <p className="font-serif text-2xl leading-tight">{cue.text}</p>
      )}
      <p className="mt-1 text-soft">{cue.drill}</p>
      <div className="mt-2 flex flex-wrap gap-3">
        {cue.isWorked ? (
          <LinkButton href={`/students/${cue.studentId}/work`}>The work</LinkButton>
        ) : (
          <Button hint="U" onClick={() => void work()}>
            Give the work
          </Button>
        )}
        {cue.strikeId !== strikeId && (
          <LinkButton href={`/compare?a=${cue.strikeId}&b=${strikeId}`}>Did it change?</LinkButton>
        )}
      </div>
    </div>
  );
}
