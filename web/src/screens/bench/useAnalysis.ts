import { useMemo } from 'react';
import type { Analysis } from '@sinew/core/analyze';
import { realFrameTimes } from '@sinew/core/track/time';
import { analyzeOnBench } from '@/data/benchAnalysis';
import { documentOf, strikeOf, useBench } from './benchStore';

/** Real time of every frame of the clip, seconds. */
export function useRealTimes(): readonly number[] {
  const fileTimes = useBench((state) => state.clip.frameTimes);
  const captureRate = useBench((state) => documentOf(state).captureRate);
  return useMemo(() => realFrameTimes(fileTimes, captureRate), [fileTimes, captureRate]);
}

/** Readings and findings of the strike in hand, anew whenever what they rest on changes. */
export function useAnalysis(): Analysis | null {
  const clip = useBench((state) => state.clip);
  const student = useBench((state) => state.student);
  const document = useBench(documentOf);
  const strike = useBench(strikeOf);
  return useMemo(
    () => (strike ? analyzeOnBench(document, strike, clip, student) : null),
    [document, strike, clip, student],
  );
}
