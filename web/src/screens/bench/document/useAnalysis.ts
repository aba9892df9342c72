import {
  createContext,
  createElement,
  useContext,
  useDeferredValue,
  useMemo,
  useState,
  type ReactNode,
} from 'react';
import { rejudged } from '@sinew/core/analysis/analyze';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import {
  analyzeOnBench,
  rulesFor,
  trackedOf,
  type BenchAnalysis,
  type SecondFilm,
} from '@/data/bench/benchAnalysis';
import type { BenchDocument, StrikeDocument } from '@/data/bench/benchDocument';
import type { Library } from '@/data/gym/library';
import { documentOf, strikeOf, useBench } from './benchStore';
import { useCosts } from './useCosts';
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

/** A strike without what it is judged by: only this is measured anew when it changes. */
function measuredPart(strike: StrikeDocument): StrikeDocument {
  const { school: _, situation: __, range: ___, audit: ____, ...measured } = strike;
  return measured;
}

const AnalysisContext = createContext<BenchAnalysis | null>(null);
const LibraryContext = createContext<Library | null>(null);

/** Works out readings and findings of the strike in hand, once for all parts of the bench. */
export function AnalysisProvider({ library, children }: { library: Library; children: ReactNode }) {
  const clip = useBench((state) => state.clip);
  const student = useBench((state) => state.student);
  const now = useBench(documentOf);
  const { strikes, ...film } = now;
  // Points follow the hand at once; what rests on them follows a moment later.
  const measured = useDeferredValue(useStable({ ...film, strikes: strikes.map(measuredPart) }));
  const strike = useBench(strikeOf);
  const second = useSecondFilm();
  const { base } = useTracked();
  const series = useBench((state) => state.series);
  const strikeId = strike?.id ?? null;
  const analysis = useMemo(() => {
    const one = measured.strikes.find(({ id }) => id === strikeId);
    const facts = { ...clip, tracked: base, series };
    return one ? analyzeOnBench(measured, one, facts, student, library, second) : null;
  }, [measured, strikeId, clip, base, series, student, library, second]);
  const judged = useMemo(() => {
    if (!analysis || !strike) return null;
    const rules = rulesFor(strike, now, student, library);
    return { ...rejudged(analysis, techniqueById(strike.technique), rules), rules };
  }, [analysis, strike, now, student, library]);
  const costed = useCosts(judged, strike?.technique ?? null);
  return createElement(
    LibraryContext,
    { value: library },
    createElement(AnalysisContext, { value: costed }, children),
  );
}

/** Nothing that is measured has changed: the film's parts are kept as they are from edit to edit. */
function saysTheSame(a: BenchDocument, b: BenchDocument): boolean {
  const keys = Object.keys(b) as (keyof BenchDocument)[];
  return (
    keys.every((key) => key === 'strikes' || a[key] === b[key]) &&
    JSON.stringify(a.strikes) === JSON.stringify(b.strikes)
  );
}

/** The same object for as long as it says the same. */
function useStable(value: BenchDocument): BenchDocument {
  const [held, setHeld] = useState(value);
  if (saysTheSame(held, value)) return held;
  setHeld(value);
  return value;
}

/** Readings and findings of the strike in hand, anew whenever what they rest on changes. */
export function useAnalysis(): BenchAnalysis | null {
  return useContext(AnalysisContext);
}

/** What strikes are judged by in this gym. */
export function useLibrary(): Library {
  const library = useContext(LibraryContext);
  if (!library) throw new Error('a part of the bench stands outside its library');
  return library;
}
