import {
  createContext,
  createElement,
  useContext,
  useDeferredValue,
  useMemo,
  type ReactNode,
} from 'react';
import {
  analyzeOnBench,
  trackedOf,
  type BenchAnalysis,
  type SecondFilm,
} from '@/data/benchAnalysis';
import { documentOf, strikeOf, useBench } from './benchStore';
import { useTracked } from './useTracked';

/** The film of the other side, as the analysis asks for it. */
function useSecondFilm(): SecondFilm | null {
  const second = useBench((state) => state.second);
  const sightings = useBench((state) => state.secondSightings);
  return useMemo(() => {
    if (!second) return null;
    const { clip, bench, offset } = second;
    const tracked = trackedOf(sightings, clip, bench.document);
    return { document: bench.document, film: { ...clip, tracked }, offset };
  }, [second, sightings]);
}

const AnalysisContext = createContext<BenchAnalysis | null>(null);

/** Works out readings and findings of the strike in hand, once for all parts of the bench. */
export function AnalysisProvider({ children }: { children: ReactNode }) {
  const clip = useBench((state) => state.clip);
  const student = useBench((state) => state.student);
  // Points follow the hand at once; what rests on them follows a moment later.
  const document = useDeferredValue(useBench(documentOf));
  const strike = useBench(strikeOf);
  const second = useSecondFilm();
  const { base } = useTracked();
  const series = useBench((state) => state.series);
  const analysis = useMemo(
    () =>
      strike
        ? analyzeOnBench(document, strike, { ...clip, tracked: base, series }, student, second)
        : null,
    [document, strike, clip, base, series, student, second],
  );
  return createElement(AnalysisContext, { value: analysis }, children);
}

/** Readings and findings of the strike in hand, anew whenever what they rest on changes. */
export function useAnalysis(): BenchAnalysis | null {
  return useContext(AnalysisContext);
}
