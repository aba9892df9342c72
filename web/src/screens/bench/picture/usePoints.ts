import { useMemo } from 'react';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { documentOf, useBench } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useTracked } from '../document/useTracked';
import { groupPlaced, pointsOnFrame, trackedOnFrame, type ShownPoint } from './pointsOnPicture';

/** Every landmark that is known on a frame, placed or tracked, always in the same order. */
export function usePoints(frame: number | null): readonly ShownPoint[] {
  const placed = useBench((state) => documentOf(state).placed);
  const groups = useMemo(() => groupPlaced(placed), [placed]);
  const { tracking } = useTracked();
  const times = useRealTimes();
  return useMemo(() => {
    if (frame === null) return [];
    const own = pointsOnFrame(groups, frame, times);
    const tracked = trackedOnFrame(tracking, frame, times, own);
    const isTracked = new Set(tracked.map(({ landmark }) => landmark));
    // What is dragged must not change its place among them.
    return [...own.filter(({ landmark }) => !isTracked.has(landmark)), ...tracked].sort(
      (a, b) => LANDMARKS.indexOf(a.landmark) - LANDMARKS.indexOf(b.landmark),
    );
  }, [groups, frame, times, tracking]);
}
