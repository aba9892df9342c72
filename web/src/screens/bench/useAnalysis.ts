import { createContext, createElement, useContext, useMemo, type ReactNode } from 'react';
import { realFrameTimes } from '@sinew/core/track/time';
import { analyzeOnBench, type BenchAnalysis, type SecondFilm } from '@/data/benchAnalysis';
import { documentOf, strikeOf, useBench } from './benchStore';

/** Real time of every frame of the clip, seconds. */
export function useRealTimes(): readonly number[] {
  const fileTimes = useBench((state) => state.clip.frameTimes);
  const captureRate = useBench((state) => documentOf(state).captureRate);
  return useMemo(() => realFrameTimes(fileTimes, captureRate), [fileTimes, captureRate]);
}

/** The film of the other side, as the analysis asks for it. */
function useSecondFilm(): SecondFilm | null {
  const second = useBench((state) => state.second);
  return useMemo(
    () => second && { document: second.bench.document, film: second.clip, offset: second.offset },
    [second],
  );
}

const AnalysisContext = createContext<BenchAnalysis | null>(null);

/** Works out readings and findings of the strike in hand, once for all parts of the bench. */
export function AnalysisProvider({ children }: { children: ReactNode }) {
  const clip = useBench((state) => state.clip);
  const student = useBench((state) => state.student);
  const document = useBench(documentOf);
  const strike = useBench(strikeOf);
  const second = useSecondFilm();
  const analysis = useMemo(
    () => (strike ? analyzeOnBench(document, strike, clip, student, second) : null),
    [document, strike, clip, student, second],
  );
  return createElement(AnalysisContext, { value: analysis }, children);
}

/** Readings and findings of the strike in hand, anew whenever what they rest on changes. */
export function useAnalysis(): BenchAnalysis | null {
  return useContext(AnalysisContext);
}
