'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react';
import { techniqueById, VIEWS } from '@sinew/core/foundation/technique/techniques';
import { questionById } from '@sinew/core/foundation/technique/questions';
import type { FilmedBefore } from '@/data/clip/clips';
import { giveKeysBack } from '@/ui/giveKeysBack';
import { TopBar } from '@/ui/topBar';
import { SIMULATED } from '@/video/cameras';
import { listenTo, type Level } from '@/video/sound';
import { takeStore } from '@/video/takeStore';
import { CameraChoice } from './CameraChoice';
import { Controls } from './Controls';
import { LeftTakes } from './LeftTakes';
import { LiveCheck } from './LiveCheck';
import { Review } from './Review';
import { Stage } from './Stage';
import { useCamera } from './useCamera';
import { useTake } from './useTake';
import { aimedFrom, ViewGuide, type Aim } from './ViewGuide';
import { useCommands } from '@/ui/commands/registry';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';

export interface CaptureProps {
  readonly student: {
    readonly id: string;
    readonly name: string;
    readonly heightM: number | null;
    readonly hasBands: boolean;
    readonly isSouthpaw: boolean;
  };
  readonly start: Aim;
  readonly before: FilmedBefore | null;
}

/** Film a student: what for and from where, the live picture, the take, and the look at it. */
export function Capture({ student, start, before }: CaptureProps) {
  const router = useRouter();
  const [aim, setAim] = useState(start);
  const [seconds, setSeconds] = useState(20);
  const [isMirrored, setMirrored] = useState(false);
  const [isClapOn, setClapOn] = useState(false);
  const camera = useCamera();
  const stream = camera.live?.stream ?? null;
  const take = useTake(stream, seconds);
  const { state, countDown, callOff, stop } = take;
  const isFree = state.kind === 'ready' || state.kind === 'failed';
  const finished = state.kind === 'review' ? state.take : null;

  useAddress(student.id, aim);

  const begin = useCallback(
    () =>
      countDown({
        studentId: student.id,
        studentName: student.name,
        view: aim.view,
        ...(aim.azimuth !== undefined && { azimuth: aim.azimuth }),
        technique: aim.technique,
        question: aim.question,
        ...(aim.intent && { intent: aim.intent }),
        ...(aim.round && { round: aim.round }),
      }),
    [countDown, student, aim],
  );
  const press = () => {
    if (isFree) begin();
    else if (state.kind === 'counting') callOff();
    else if (state.kind === 'recording') void stop();
  };
  const level = useLevel(stream, isClapOn && isFree ? begin : null);

  const throwAway = async () => {
    if (!finished) return;
    await takeStore().remove(finished.id);
    take.toReady();
  };

  useCommands(() =>
    [
      { id: 'film', keys: [' '], words: 'count and film; again to stop', run: press },
      {
        id: 'call off',
        keys: ['Escape'],
        words: 'call the count off',
        run: () => state.kind === 'counting' && callOff(),
      },
      {
        id: 'clap',
        keys: ['c'],
        words: 'start at a clap, or not',
        run: () => setClapOn((now) => !now),
      },
      {
        id: 'mirror',
        keys: ['m'],
        words: 'mirror the picture',
        run: () => setMirrored((now) => !now),
      },
      ...VIEWS.map((view, at) => ({
        id: `view ${view}`,
        keys: [String(at + 1)],
        words: `filmed ${VIEW_GUIDE[view].name.toLowerCase()}`,
        run: () => isFree && setAim((old) => aimedFrom(old, view)),
      })),
    ].map((one) => ({ ...one, group: 'Film', isOn: finished === null })),
  );

  return (
    <div
      className="flex flex-col md:h-[calc(100dvh-var(--bar,0px))] md:min-h-[640px] md:overflow-hidden"
      onClick={giveKeysBack}
    >
      <TopBar right={<LeftTakes studentId={student.id} onTake={take.review} />}>
        <Link href="/" className="text-soft hover:underline">
          Floor
        </Link>
        <Link href={`/students/${student.id}`} className="font-semibold hover:underline">
          {student.name}
        </Link>
        <h1 className="text-base">Film: {techniqueById(aim.technique).name}</h1>
        <Link
          href={`/phone/${student.id}/set`}
          className="inline-flex items-center underline underline-offset-4 max-md:min-h-11"
        >
          A set, every hit again
        </Link>
      </TopBar>
      {finished ? (
        <Review
          key={finished.id}
          take={finished}
          onKept={(clipId) => router.push(`/bench/${clipId}`)}
          onAgain={() => void throwAway()}
        />
      ) : (
        <main className="flex flex-col md:grid md:min-h-0 md:flex-1 md:grid-cols-[minmax(0,63fr)_minmax(320px,37fr)] md:grid-rows-[minmax(0,1fr)_auto]">
          <section
            aria-label="Live picture"
            className="flex min-h-0 flex-col border-ink bg-shade max-md:min-h-[56dvh] md:border-r"
          >
            <CameraChoice camera={camera} isLocked={!isFree} />
            <Stage
              stream={stream}
              isMirrored={isMirrored}
              state={state}
              seconds={seconds}
              problem={camera.problem}
              onTryAgain={camera.tryAgain}
              onSimulated={() => camera.setWish({ camera: SIMULATED })}
            />
          </section>
          <section
            aria-label="View guide"
            className="min-h-0 px-5 py-4 max-md:order-2 max-md:px-4 md:overflow-auto"
          >
            <ViewGuide
              aim={aim}
              heightM={student.heightM}
              hasBands={student.hasBands}
              isSouthpaw={student.isSouthpaw}
              bandsPage={`/students/${student.id}/bands`}
              before={before}
              onAim={(next) => isFree && setAim(next)}
            />
          </section>
          <div className="flex items-stretch border-t border-ink max-md:order-1 max-md:flex-col max-md:border-b md:col-span-2">
            <Controls
              state={state}
              isAble={stream !== null}
              seconds={seconds}
              onSeconds={setSeconds}
              isClapOn={isClapOn}
              onClap={() => setClapOn((now) => !now)}
              isMirrored={isMirrored}
              onMirror={() => setMirrored((now) => !now)}
              onPress={press}
            />
            <LiveCheck
              stream={stream}
              rate={camera.rate}
              level={level}
              question={questionById(aim.question)}
            />
          </div>
        </main>
      )}
    </div>
  );
}

/** A chosen question or view leaves the keys to the screen; lists and other buttons keep theirs. */
/** Keeps what is filmed for in the address, so that a reload comes back to it. */
function useAddress(studentId: string, { technique, question, view }: Aim): void {
  useEffect(() => {
    const query = new URLSearchParams({ student: studentId, technique, question, view });
    window.history.replaceState(window.history.state, '', `?${query}`);
  }, [studentId, technique, question, view]);
}

/** Listens to the camera's sound; a clap calls, when someone waits for one. */
function useLevel(stream: MediaStream | null, onClap: (() => void) | null): Level | null {
  const [level, setLevel] = useState<Level | null>(null);
  const told = useRef(0);
  const hear = useEffectEvent((heard: Level) => {
    if (heard.isClap) onClap?.();
    const now = performance.now();
    if (heard.isClap || now - told.current > 120) {
      told.current = now;
      setLevel(heard);
    }
  });
  useEffect(() => {
    if (!stream) return;
    const stop = listenTo(stream, (heard) => hear(heard));
    return () => {
      stop();
      setLevel(null);
    };
  }, [stream]);
  return level;
}
