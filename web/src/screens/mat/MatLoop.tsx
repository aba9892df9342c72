'use client';

import Link from 'next/link';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { GLIMPSE_NAMES, GLIMPSES } from '@sinew/core/measure/measures/glimpse';
import { Button } from '@/ui/button';
import { SelectField } from '@/ui/field';
import { aloud, speak } from '@/ui/speak';
import { useRemembered } from '@/ui/useRemembered';
import { SIMULATED } from '@/video/cameras';
import { RecentFilm } from '@/video/recentFilm';
import { takeStore } from '@/video/takeStore';
import { LeftTakes } from '../capture/LeftTakes';
import { useCamera } from '../capture/useCamera';
import { useTake, type FinishedTake } from '../capture/useTake';
import { SentClip } from '../phone/SentClip';
import { stayAwake } from '../phone/stayAwake';
import { useSending } from '../phone/useSending';
import { saidOf, useShown, type Shown } from '../phone/useShown';
import { MatStage } from './MatStage';
import { useSet } from './useSet';

export interface MatLoopProps {
  readonly student: {
    readonly id: string;
    readonly name: string;
    readonly stance: 'orthodox' | 'southpaw';
    /** Metres, where it is known. */
    readonly heightM: number | null;
  };
}

/** Seconds: a set that nobody ends. */
const LONGEST = 600;

/** A set at the mat: filmed with one tap, every hit seen again at once and read, kept or thrown away with one. */
export function MatLoop({ student }: MatLoopProps) {
  const [shown] = useShown();
  const [watchedName, setWatched] = useRemembered('sinew.mat.watched');
  const [silence, setSilence] = useRemembered('sinew.mat.silent');
  const watched = GLIMPSES.find((one) => one === watchedName) ?? 'guard';
  const camera = useCamera();
  const stream = camera.live?.stream ?? null;
  const { state, record, stop, review, toReady } = useTake(stream, LONGEST);
  const [recent, setRecent] = useState<RecentFilm | null>(null);
  const { items, add, again } = useSending(student.id);
  const isRecording = state.kind === 'recording';
  const film = isRecording ? recent : null;
  const { technique, filmed } = shown;
  const { view } = filmed;
  const about = useMemo(
    () => ({ technique, view, stance: student.stance, heightM: student.heightM }),
    [technique, view, student],
  );
  const tell = useCallback(
    (sentence: string) => {
      if (silence === '') speak(aloud(sentence));
    },
    [silence],
  );
  const { count, last, told, seeAgain } = useSet(stream, film, about, watched, tell);
  useAwake();

  const begin = () => {
    const film = new RecentFilm();
    setRecent(film);
    void record(
      {
        studentId: student.id,
        studentName: student.name,
        ...filmed,
        question: null,
        ...(technique && { technique }),
        ...(shown.intent && { intent: shown.intent }),
      },
      film,
    );
  };
  const keep = ({ id, file, about }: FinishedTake) => {
    const { technique = null, view, azimuth, intent = null } = about;
    const filmed = { view, ...(azimuth !== undefined && { azimuth }) };
    add([file], saidOf({ technique, filmed, intent }), () => takeStore().remove(id));
    toReady();
  };
  const throwAway = ({ id }: FinishedTake) => {
    void takeStore().remove(id);
    toReady();
  };
  const take = state.kind === 'review' ? state.take : null;
  return (
    <div className="mx-auto flex h-[calc(100dvh-var(--bar,0px))] flex-col text-[17px]">
      <header className="flex min-h-14 items-center gap-3 border-b border-ink px-4">
        <Link
          href={`/phone/${student.id}`}
          className="-ml-2 inline-flex min-h-11 items-center px-2 font-semibold"
        >
          ← {student.name}
        </Link>
        <h1 className="ml-auto truncate text-soft">{whatIsFilmed(shown)}</h1>
        <LeftTakes studentId={student.id} onTake={review} />
      </header>
      <main className="flex min-h-0 flex-1 flex-col landscape:flex-row">
        <MatStage
          stream={stream}
          problem={camera.problem}
          film={film}
          hit={last}
          onAgain={seeAgain}
          onTryAgain={camera.tryAgain}
          onSimulated={() => camera.setWish({ camera: SIMULATED })}
        />
        <section
          aria-label="The set"
          className="border-t border-ink px-4 pt-3 pb-4 landscape:w-[22rem] landscape:overflow-auto landscape:border-t-0 landscape:border-l"
        >
          <p
            role="status"
            aria-label="What was seen"
            className="min-h-14 font-serif text-[22px] leading-tight md:min-h-24 md:text-3xl"
          >
            {told ? `Hit ${told.number}. ${told.sentence}` : hint(state.kind, stream)}
          </p>
          {state.kind === 'failed' && (
            <p role="alert" className="mb-3 border-l-4 border-now pl-3">
              {state.message}
            </p>
          )}
          <div className="flex items-stretch gap-4">
            <p className="flex w-24 flex-col md:w-36 justify-center leading-none">
              <strong data-hits className="text-6xl font-semibold tabular-nums md:text-8xl">
                {count}
              </strong>
              <span className="text-sm text-soft">{count === 1 ? 'hit' : 'hits'}</span>
            </p>
            {take ? (
              <>
                <Button
                  weight="main"
                  className="min-h-20 flex-1 justify-center !px-2 text-xl !whitespace-normal"
                  onClick={() => keep(take)}
                >
                  Keep the set
                </Button>
                <Button
                  className="min-h-20 flex-1 justify-center !px-2 text-xl !whitespace-normal"
                  onClick={() => throwAway(take)}
                >
                  Throw it away
                </Button>
              </>
            ) : (
              <button
                type="button"
                disabled={!stream || state.kind === 'mending'}
                className={`min-h-20 flex-1 text-2xl font-semibold text-paper disabled:opacity-45 ${isRecording ? 'bg-now' : 'bg-ink'}`}
                onClick={() => (isRecording ? void stop() : begin())}
              >
                {isRecording ? 'Stop' : state.kind === 'mending' ? 'Closing…' : 'Film a set'}
              </button>
            )}
          </div>
          {!isRecording && !take && (
            <div className="mt-4 flex items-end gap-4">
              <div className="flex-1">
                <SelectField
                  label="After a hit, say"
                  className="!h-12"
                  value={watched}
                  onChange={(event) => setWatched(event.target.value)}
                >
                  {GLIMPSES.map((id) => (
                    <option key={id} value={id}>
                      {GLIMPSE_NAMES[id]}
                    </option>
                  ))}
                </SelectField>
              </div>
              <label className="flex min-h-12 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 accent-ink"
                  checked={silence === ''}
                  onChange={(event) => setSilence(event.target.checked ? '' : 'silent')}
                />
                aloud
              </label>
            </div>
          )}
          {items.length > 0 && !isRecording && (
            <ul
              aria-label="Sets on their way"
              className="mt-4 max-h-40 overflow-auto border-t border-ink"
            >
              {items.map((item) => (
                <SentClip key={item.id} item={item} onAgain={() => again(item.id)} />
              ))}
            </ul>
          )}
        </section>
      </main>
    </div>
  );
}

const whatIsFilmed = ({ technique, filmed, intent }: Shown): string =>
  [
    technique ? techniqueById(technique).name : 'Several strikes',
    VIEW_GUIDE[filmed.view].name.toLowerCase(),
    ...(intent ? [INTENT_NAMES[intent]] : []),
  ].join(', ');

function hint(state: string, stream: MediaStream | null): string {
  if (state === 'review') return 'The set is filmed.';
  if (state === 'recording') return 'Hit: it comes again by itself.';
  return stream && stream.getAudioTracks().length === 0
    ? 'This camera has no sound, so no hit is heard: the set is filmed all the same.'
    : '';
}

/** A phone that leans at the wall for a set must not go dark. */
function useAwake(): void {
  useEffect(() => {
    let leave = () => {};
    void stayAwake(() => new Promise<void>((resolve) => (leave = resolve)));
    return () => leave();
  }, []);
}
