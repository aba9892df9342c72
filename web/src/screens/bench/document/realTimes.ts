import { useMemo } from 'react';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { documentOf, useBench } from './benchStore';

/** Real time of every frame of the clip, seconds. */
export function useRealTimes(): readonly number[] {
  const fileTimes = useBench((state) => state.clip.frameTimes);
  const captureRate = useBench((state) => documentOf(state).captureRate);
  return useMemo(() => realFrameTimes(fileTimes, captureRate), [fileTimes, captureRate]);
}
