import { useEffect } from 'react';
import { lowerBound } from '@sinew/core/foundation/signal/interpolate';
import { strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';

const MARGIN = 0.08;

/** While playing, moves on by the clock; round in what is chosen, else in the strike if it is marked, else the clip. */
export function usePlayback(): void {
  const store = useBenchStore();
  const isPlaying = useBench((state) => state.isPlaying);
  const loop = useBench((state) => state.loop);
  const times = useRealTimes();

  useEffect(() => {
    if (!isPlaying) return;
    const state = store.getState();
    const marked = Object.values(strikeOf(state)?.marks ?? {}).map((mark) => times[mark.frame]!);
    const last = times[times.length - 1]!;
    const strike = [Math.min(...marked) - MARGIN, Math.max(...marked) + MARGIN] as const;
    const [begin, end] = loop?.span ?? (marked.length >= 2 ? strike : [0, last]);
    const [from, to] = [Math.max(0, begin), Math.min(last, end)];
    let time = Math.min(Math.max(times[state.frame]!, from), to);
    let before = performance.now();
    let handle = requestAnimationFrame(function step(now: number) {
      time += ((now - before) / 1000) * store.getState().pace;
      before = now;
      if (time >= to) time = from;
      store.getState().goTo(Math.min(times.length - 1, lowerBound(times, time)));
      handle = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(handle);
  }, [isPlaying, loop, store, times]);
}
