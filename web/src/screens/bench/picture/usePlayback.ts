import { useEffect } from 'react';
import { lowerBound } from '@sinew/core/foundation/signal/interpolate';
import { strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';

/** An eighth of true speed: a strike of half a second takes four. */
const SLOWED = 1 / 8;
const MARGIN = 0.08;

/** While playing, moves on by the clock; loops over the strike when it is marked, else the clip. */
export function usePlayback(): void {
  const store = useBenchStore();
  const isPlaying = useBench((state) => state.isPlaying);
  const times = useRealTimes();

  useEffect(() => {
    if (!isPlaying) return;
    const state = store.getState();
    const marked = Object.values(strikeOf(state)?.marks ?? {}).map((mark) => times[mark.frame]!);
    const last = times[times.length - 1]!;
    const isLoop = marked.length >= 2;
    const from = isLoop ? Math.max(0, Math.min(...marked) - MARGIN) : 0;
    const to = isLoop ? Math.min(last, Math.max(...marked) + MARGIN) : last;
    let time = Math.min(Math.max(times[state.frame]!, from), to);
    let before = performance.now();
    let handle = requestAnimationFrame(function step(now: number) {
      time += ((now - before) / 1000) * SLOWED;
      before = now;
      if (time >= to) time = from;
      store.getState().goTo(Math.min(times.length - 1, lowerBound(times, time)));
      handle = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(handle);
  }, [isPlaying, store, times]);
}
