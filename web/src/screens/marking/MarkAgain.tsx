'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { eventsOf, wordsFor, type EventName } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { EVENT_KEY } from '@/screens/bench/strip/lanes';
import type { Clip } from '@/data/clip/clips';
import { FilmFrame } from '@/ui/filmFrame';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { MainBar } from '@/ui/mainBar';
import { useCoachName } from '@/ui/asker';
import { keepMarks } from './actions';
import { stepping } from '@/ui/commands/stepping';
import { useCommands } from '@/ui/commands/registry';

/** One strike, to be marked as if for the first time: no marks, no points, no curves. */
export function MarkAgain({
  strikeId,
  technique: id,
  clip,
  span,
}: {
  strikeId: string;
  technique: string;
  clip: Pick<Clip, 'id' | 'width' | 'height'>;
  /** First and last frame it can be in. */
  span: { readonly from: number; readonly to: number };
}) {
  const router = useRouter();
  const student = useSearchParams().get('student');
  const technique = techniqueById(id);
  const events = eventsOf(technique);
  const [frame, setFrame] = useState(span.from);
  const [marks, setMarks] = useState<Partial<Record<EventName, number>>>({});
  const { by, setBy, isKnown } = useCoachName();
  const [isSaving, setSaving] = useState(false);
  const go = (by: number) => setFrame((now) => Math.min(span.to, Math.max(span.from, now + by)));
  const mark = (event: EventName) => setMarks((now) => ({ ...now, [event]: frame }));
  const isWhole = events.every((event) => marks[event] !== undefined);
  const save = async () => {
    if (!isWhole || isSaving) return;
    setSaving(true);
    const input = {
      by,
      marks: Object.fromEntries(
        Object.entries(marks).map(([event, at]) => [event, { frame: at, width: 1 }]),
      ),
    };
    const wrong = await keepMarks(strikeId, input).catch(
      () => 'Not kept: the server does not answer. Your marks are still here; try again.',
    );
    setSaving(false);
    if (wrong) toast(wrong);
    else router.push(student ? `/marking?student=${student}` : '/marking');
  };
  useCommands(() => [
    ...stepping(go),
    ...events.map((name) => ({
      id: `mark ${name}`,
      keys: [String(EVENT_KEY[name])],
      words: wordsFor(name, technique).name.toLowerCase(),
      group: 'Mark the instant',
      run: () => mark(name),
    })),
  ]);
  return (
    <>
      <MainBar here="Gym" />
      <main className="mx-auto grid max-w-[1280px] gap-8 px-4 sm:px-8 pt-6 pb-12 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <section aria-label="Picture">
          <FilmFrame clip={clip} frame={frame} label={`Frame ${frame} of the film`} />
          <input
            type="range"
            aria-label="Frame"
            min={span.from}
            max={span.to}
            value={frame}
            onChange={(event) => setFrame(Number(event.target.value))}
            className="mt-2 w-full accent-now"
          />
          <p className="text-sm text-soft">
            Frame {frame}. ← → one frame, Shift ten; a number marks the frame in sight.
          </p>
        </section>
        <section aria-label="Instants">
          <h1 className="font-serif text-3xl">{technique.name}, as if for the first time.</h1>
          <ul className="mt-4 border-t-2 border-ink">
            {events.map((event) => {
              const words = wordsFor(event, technique);
              const at = marks[event];
              return (
                <li key={event} className="flex items-center gap-3 border-b border-rule py-1.5">
                  <Button
                    className="!min-h-8"
                    hint={String(EVENT_KEY[event])}
                    onClick={() => mark(event)}
                  >
                    {words.name}
                  </Button>
                  <span className="text-sm text-soft">{words.meaning}</span>
                  <span className="ml-auto font-semibold">{at ?? ''}</span>
                </li>
              );
            })}
          </ul>
          <div className="mt-4 flex items-end gap-4">
            {!isKnown && (
              <div className="w-48">
                <TextField
                  label="Marked by"
                  value={by}
                  maxLength={60}
                  onChange={(event) => setBy(event.target.value)}
                />
              </div>
            )}
            <Button weight="main" disabled={!isWhole || isSaving} onClick={() => void save()}>
              Keep these marks
            </Button>
          </div>
        </section>
      </main>
    </>
  );
}
