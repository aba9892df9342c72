import { createContext, createElement, useContext, useMemo, type ReactNode } from 'react';
import {
  cleanDetections,
  trackFrom,
  type CleanDetections,
  type Tracking,
} from '@sinew/core/observe/track/trackFromDetections';
import { documentOf, useBench } from './benchStore';
import { useRealTimes } from './realTimes';

interface Tracked {
  /** What the tracker saw, cleaned without the coach; null when it saw nothing. */
  readonly base: CleanDetections | null;
  /** The same with the coach's points and words in it, over the whole film. */
  readonly tracking: Tracking;
}

const TrackedContext = createContext<Tracked | null>(null);

/** Makes one track of what was seen and what was placed, once for all parts of the bench. */
export function TrackedProvider({ children }: { children: ReactNode }) {
  const detections = useBench((state) => state.detections);
  const height = useBench((state) => state.clip.height);
  const placed = useBench((state) => documentOf(state).placed);
  const corrections = useBench((state) => documentOf(state).corrections);
  const times = useRealTimes();
  const base = useMemo(() => cleanDetections(detections, times), [detections, times]);
  const tracking = useMemo(
    () => trackFrom(base, { placed, corrections }, height),
    [base, placed, corrections, height],
  );
  const value = useMemo(
    () => ({ base: base.detections.length > 0 ? base : null, tracking }),
    [base, tracking],
  );
  return createElement(TrackedContext, { value }, children);
}

export function useTracked(): Tracked {
  const tracked = useContext(TrackedContext);
  if (!tracked) throw new Error('a part of the bench stands outside its track');
  return tracked;
}
