'use client';

import { useMemo } from 'react';
import { checkFootage } from '@sinew/core/observe/footage/check';
import { questionById } from '@sinew/core/foundation/technique/questions';
import type { ClipAnalysis } from '@sinew/core/analysis/analyzeClip';
import { DEEDS } from '@/data/access/deedKinds';
import type { Deed } from '@/data/access/deeds';
import type { ClipSummary } from '@/data/clip/clips';
import { instant } from '@/manner/manner';
import { Button } from '@/ui/button';
import { CheckLines } from '@/ui/checkLines';
import { ProgressBar } from '@/ui/progressBar';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { CameraPlaceHere } from './CameraPlaceHere';
import { NotesHere } from './NotesHere';
import { SecondViewPanel } from './SecondViewPanel';
import { useTake } from '../../document/useTake';

/** What the film is worth, what was found in it, and the film of the other side. */
export function FilmTab({
  others,
  space,
  deeds,
}: {
  others: readonly ClipSummary[];
  space: ClipAnalysis['space'];
  deeds: readonly Deed[];
}) {
  return (
    <div className="space-y-6">
      <section aria-label="Film check">
        <FilmCheck />
      </section>
      <CameraPlaceHere />
      <section aria-label="Second view">
        <SecondViewPanel others={others} space={space} />
      </section>
      <NotesHere />
      <SaveAsFile />
      <DoneHere deeds={deeds} />
    </div>
  );
}

/** Who marked and decided in this clip. */
function DoneHere({ deeds }: { deeds: readonly Deed[] }) {
  if (deeds.length === 0) return null;
  return (
    <section aria-label="Who did what here">
      <h2 className="border-b border-ink pb-1 font-semibold">Who did what here</h2>
      <ul>
        {deeds.map(({ id, by, what, detail, at }) => (
          <li key={id} className="flex gap-4 border-b border-rule py-1">
            <span>
              <strong>{by}</strong> {DEEDS[what]}
              {detail && `: ${detail}`}
            </span>
            <span className="ml-auto text-soft" suppressHydrationWarning>
              {instant(at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** For the command line, which says the same of it as the bench. */
function SaveAsFile() {
  const id = useBench((state) => state.clip.id);
  return (
    <p className="text-soft">
      <a href={`/api/clips/${id}/document`} download className="underline underline-offset-4">
        Save marks and points as a file
      </a>
      , without the film and without names, for <code>sinew analyze</code>.
    </p>
  );
}

function FilmCheck() {
  const store = useBenchStore();
  const survey = useBench((state) => state.survey);
  const control = useBench((state) => state.surveyControl);
  const question = useBench((state) => documentOf(state).purpose?.question ?? null);
  const refused = useBench((state) => documentOf(state).refused.length);
  const take = useTake();
  const lines = useMemo(
    () => take && checkFootage(take.footage, question ? questionById(question) : null),
    [take, question],
  );
  if (survey.kind === 'running') {
    return (
      <div className="space-y-2">
        <p className="text-soft">Going through the film. Everything else works meanwhile.</p>
        <ProgressBar
          label="Film check"
          progress={survey.progress}
          onCancel={() => control?.cancel()}
        />
      </div>
    );
  }
  if (survey.kind === 'failed' || survey.kind === 'cancelled') {
    return (
      <div className="space-y-2">
        <p role="alert">
          {survey.kind === 'failed'
            ? survey.message
            : 'The film has not been gone through: no check, no sound, no strikes found.'}
        </p>
        <Button onClick={() => control?.again()}>Go through it</Button>
      </div>
    );
  }
  return (
    <>
      {lines && <CheckLines lines={lines} />}
      {take && (
        <p className="pt-2 text-soft">
          Heard: {counted(take.hits.length, 'hit')}, {counted(take.breaths.length, 'breath')}.
          {refused > 0 && ` Set aside as no strike: ${refused}.`}{' '}
          {refused > 0 && (
            <button
              type="button"
              className="underline underline-offset-4"
              onClick={() => {
                const { edit } = store.getState();
                edit({ ...documentOf(store.getState()), refused: [] });
              }}
            >
              Ask again
            </button>
          )}
        </p>
      )}
    </>
  );
}

function counted(count: number, one: string): string {
  if (count === 0) return `no ${one}`;
  return count === 1 ? `one ${one}` : `${count} ${one}s`;
}
