'use client';

import { useMemo, type ReactNode, type RefObject } from 'react';
import { toast } from 'sonner';
import { meanRate } from '@sinew/core/observe/track/time';
import { PHASES } from '@sinew/core/measure/events/phases';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { Key } from '@/ui/button';
import { useCommands } from '@/ui/commands/registry';
import { otherPace, PaceButtons } from '@/ui/pace';
import { documentOf, strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useAnalysis } from '../document/useAnalysis';
import { asSvg, download, pictureOf } from '@/video/frameFile';
import { DoubtInHand } from '../panel/body/Doubts';
import type { useLens } from './useLens';

/** Under the picture: which frame it is, how fast it plays and what round, and how it is looked at. */
export function FilmBar({
  view,
  stage,
}: {
  view: ReturnType<typeof useLens>;
  /** Holds the film's canvas and what is drawn over it. */
  stage: RefObject<HTMLDivElement | null>;
}) {
  const store = useBenchStore();
  const pace = useBench((state) => state.pace);
  const loop = useBench((state) => state.loop);
  const isTrailOn = useBench((state) => state.isTrailOn);
  const loopHere = useLoopHere();
  const { save } = useFrameFile(stage);
  const quicker = (by: 1 | -1) => {
    const { pace: now, setPace } = store.getState();
    setPace(otherPace(now, by));
  };
  useCommands(() =>
    [
      { id: 'slower', keys: ['['], words: 'play slower', run: () => quicker(-1) },
      { id: 'faster', keys: [']'], words: 'play faster', run: () => quicker(1) },
      {
        id: 'loop',
        keys: ['c'],
        words: 'play this phase round and round; again for all',
        run: loopHere,
      },
      {
        id: 'trail',
        keys: ['o'],
        words: 'the way of hand, elbow and belt',
        run: () => store.getState().showTrail(!store.getState().isTrailOn),
      },
      { id: 'follow', keys: ['f'], words: 'follow the striking hand', run: view.follow },
      {
        id: 'closer',
        keys: ['+', '='],
        words: 'closer; the wheel does it at the pointer',
        run: () => view.zoomBy(1),
      },
      { id: 'farther', keys: ['-'], words: 'farther', run: () => view.zoomBy(-1) },
      { id: 'whole picture', keys: ['0'], words: 'the whole picture', run: view.showWhole },
      {
        id: 'save frame',
        keys: ['Shift+s'],
        words: 'save this frame with what is drawn on it',
        run: () => void save('png'),
      },
      {
        id: 'save frame as lines',
        keys: [],
        words: 'save this frame as SVG',
        run: () => void save('svg'),
      },
    ].map((one) => ({ ...one, group: 'Picture' })),
  );
  return (
    <div className="flex flex-wrap items-center gap-x-3 border-t border-rule bg-paper pl-3 text-sm max-md:hidden lg:flex-nowrap">
      <DoubtInHand otherwise={<FrameLabel />} />
      <span className="ml-auto flex shrink-0 items-center">
        {loop && (
          <BarButton
            isOn
            onClick={() => store.getState().setLoop(null)}
            label={`Stop going round in ${loop.name}`}
          >
            {loop.name} ✕
          </BarButton>
        )}
        <PaceButtons pace={pace} onPace={store.getState().setPace} />
        <BarButton isOn={isTrailOn} onClick={() => store.getState().showTrail(!isTrailOn)} hint="O">
          Trail
        </BarButton>
        <BarButton isOn={view.isFollowing} isOff={!view.canFollow} onClick={view.follow} hint="F">
          Follow
        </BarButton>
        {view.lens.zoom > 1 && (
          <BarButton isOn={false} onClick={view.showWhole} hint="0">
            Whole
          </BarButton>
        )}
        <BarButton isOn={false} onClick={() => void save('png')} hint="Shift S">
          Save frame
        </BarButton>
      </span>
    </div>
  );
}

function BarButton({
  isOn,
  isOff = false,
  onClick,
  hint,
  label,
  children,
}: {
  isOn: boolean;
  isOff?: boolean;
  onClick: () => void;
  hint?: string;
  label?: string;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      aria-label={label}
      disabled={isOff}
      onClick={onClick}
      className="flex h-8 items-center gap-1.5 border-l border-rule px-2.5 font-semibold disabled:opacity-45 aria-pressed:bg-ink aria-pressed:text-paper"
    >
      {children}
      {hint && (
        <span className="contents max-lg:hidden">
          <Key>{hint}</Key>
        </span>
      )}
    </button>
  );
}

/** Takes the phase that the frame in hand is in, or lets go of the one that is played. */
function useLoopHere(): () => void {
  const store = useBenchStore();
  const times = useRealTimes();
  const events = useAnalysis()?.events;
  return () => {
    const { frame, loop, setLoop, setPlaying } = store.getState();
    if (loop) return setLoop(null);
    const now = times[frame]!;
    for (const { name, from, to } of PHASES) {
      const [start, end] = [events?.[from], events?.[to]];
      if (start && end && now >= start.time && now <= end.time && end.time > start.time) {
        setLoop({ name, span: [start.time, end.time] });
        return setPlaying(true);
      }
    }
    toast('No phase is known here: mark the instants before and after this frame first.');
  };
}

function useFrameFile(stage: RefObject<HTMLDivElement | null>) {
  const store = useBenchStore();
  const save = async (kind: 'png' | 'svg') => {
    const film = stage.current?.querySelector('canvas');
    const overlay = stage.current?.querySelector('svg');
    const state = store.getState();
    if (!film || !overlay || state.shownFrame === null) return;
    const strike = strikeOf(state);
    const what = strike ? techniqueById(strike.technique).name.toLowerCase() : 'film';
    const name = `${state.clip.studentName} ${what} frame ${state.shownFrame}.${kind}`;
    try {
      download(
        kind === 'png' ? await pictureOf(film, overlay, 'image/png') : asSvg(film, overlay),
        name,
      );
    } catch {
      toast(
        'This browser could not make a picture of the frame. Nothing is lost; try it as SVG, under Go to.',
      );
    }
  };
  return { save };
}

function FrameLabel() {
  const shown = useBench((state) => state.shownFrame);
  const from = useBench((state) => documentOf(state).view);
  const times = useRealTimes();
  const rate = useMemo(() => meanRate(times), [times]);
  if (shown === null) return <p className="py-1.5">Opening the film…</p>;
  return (
    <p className="min-w-0 truncate py-1.5 text-soft">
      <strong className="text-ink">Frame {shown}</strong> of {times.length - 1},{' '}
      {times[shown]!.toFixed(3)} s, {Math.round(rate)} per second,{' '}
      {VIEW_GUIDE[from].name.toLowerCase()}
    </p>
  );
}
