'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { nearestFrame, realFrameTimes } from '@sinew/core/observe/track/time';
import { FilmFrame } from '@/ui/filmFrame';
import { isDrawing, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useCommands } from '@/ui/commands/registry';

/** The frame of the other film at the moment in hand; null without one, or where it was not running. */
function useSecondFrame(): number | null {
  const second = useBench((state) => state.second);
  const frame = useBench((state) => state.frame);
  const times = useRealTimes();
  const other = useMemo(
    () => second && realFrameTimes(second.clip.frameTimes, second.bench.document.captureRate),
    [second],
  );
  if (!second || !other) return null;
  const there = times[frame]! + second.offset.seconds;
  return there < 0 || there > other[other.length - 1]! ? null : nearestFrame(other, there);
}

/** The other film in the corner of the picture, at the same moment; a click goes there. */
export function SecondInset() {
  const second = useBench((state) => state.second);
  const frame = useSecondFrame();
  const swap = useSwap();
  const isBusy = useBench(isDrawing);
  const [isHidden, setHidden] = useState(false);
  useCommands(() => [
    {
      id: 'hide second',
      keys: ['Shift+v'],
      words: 'hide or show the picture of the other side',
      group: 'Picture',
      isOn: second !== null,
      run: () => setHidden((now) => !now),
    },
  ]);
  // What is drawn may have to be drawn just there.
  if (!second || isBusy || isHidden) return null;
  return (
    <button
      type="button"
      onClick={swap}
      title="Go to that film (V); Shift V hides it"
      className="absolute right-3 bottom-3 w-[27%] md:bottom-11 border-2 border-paper bg-ink text-left text-paper"
    >
      {frame === null ? (
        <span className="block px-3 py-2 text-sm">The other camera was not running yet.</span>
      ) : (
        <FilmFrame clip={second.clip} frame={frame} />
      )}
    </button>
  );
}

/** Goes to the other film, at the same moment. */
export function useSwap(): () => void {
  const store = useBenchStore();
  const router = useRouter();
  const frame = useSecondFrame();
  return useCallback(() => {
    const { second, flush } = store.getState();
    if (!second) return;
    void flush().then(() => router.push(`/bench/${second.clip.id}?frame=${frame ?? 0}`));
  }, [store, router, frame]);
}
