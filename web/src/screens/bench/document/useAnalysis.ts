import {
  createContext,
  createElement,
  useContext,
  useDeferredValue,
  useMemo,
  useState,
  type ReactNode,
} from 'react';
import { judgeMeasured } from '@sinew/core/analysis/analyze';
import {
  measureInClip,
  type ClipAnalysis,
  type MeasuredInClip,
} from '@sinew/core/analysis/analyzeClip';
import type { ClipDocument, StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { turnsOf } from '@sinew/core/observe/band/bandTurns';
import { trackedOf, type SecondFilm } from '@sinew/core/analysis/clipFacts';
import { rulesFor } from '@sinew/core/analysis/rules';
import type { Finding, Rules } from '@sinew/core/judge/fault/finding';
import { ranked } from '@sinew/core/judge/fault/rank';
import type { Library } from '@sinew/core/judge/library/edits';
import { documentOf, strikeOf, useBench } from './benchStore';
import { useCosts } from './useCosts';
import { useTracked } from './useTracked';

/** The film of the other side, as the analysis asks for it. */
function useSecondFilm(): SecondFilm | null {
  const second = useBench((state) => state.second);
  const detections = useBench((state) => state.secondDetections);
  return useMemo(() => {
    if (!second) return null;
    const { clip, bench, offset } = second;
    const tracked = trackedOf(detections, clip, bench.document);
    return { document: bench.document, film: { ...clip, tracked }, offset };
  }, [second, detections]);
}

/** A strike without what it is judged by: only this is measured anew when it changes. */
function measuredPart(strike: StrikeDocument): StrikeDocument {
  const { school: _, situation: __, range: ___, audit: ____, ...others } = strike;
  const { looks: _____, note: ______, ...measured } = others;
  return measured;
}

/** First step: of the strike in hand, a moment behind the hand. */
function useMeasured(): MeasuredInClip | null {
  const film = useBench((state) => state.clip);
  const student = useBench((state) => state.student);
  const now = useBench(documentOf);
  const { strikes, drawings: _, note: __, ...about } = now;
  // Points follow the hand at once; what rests on them follows a moment later.
  const document = useDeferredValue(useStable({ ...about, strikes: strikes.map(measuredPart) }));
  const second = useSecondFilm();
  const { base } = useTracked();
  const series = useBench((state) => state.series);
  const kept = useBench((state) => state.bands);
  const bands = useMemo(() => kept && turnsOf(kept), [kept]);
  const strikeId = useBench((state) => strikeOf(state)?.id ?? null);
  return useMemo(() => {
    const one = document.strikes.find(({ id }) => id === strikeId);
    const clip = { document, film: { ...film, tracked: base, series, bands }, student, second };
    return one ? measureInClip(clip, one) : null;
  }, [document, strikeId, film, base, series, bands, student, second]);
}

/** Second step: by the rules of the moment. */
function useJudged(measured: MeasuredInClip | null, rules: Rules | null): readonly Finding[] {
  return useMemo(
    () => (measured && rules ? judgeMeasured(measured, measured.facts.strike, rules) : []),
    [measured, rules],
  );
}

function useRules(library: Library): Rules | null {
  const strike = useBench(strikeOf);
  const { strikes } = useBench(documentOf);
  const student = useBench((state) => state.student);
  return useMemo(
    () => strike && rulesFor(strike, strikes, student, library),
    [strike, strikes, student, library],
  );
}

const AnalysisContext = createContext<ClipAnalysis | null>(null);
const LibraryContext = createContext<Library | null>(null);

/**
 * The way of the strike in hand, measure → judge → cost → rank, once for all parts of the bench. Each
 * step is done again only when what it rests on has changed; the slow one runs beside the page.
 */
export function AnalysisProvider({ library, children }: { library: Library; children: ReactNode }) {
  const measured = useMeasured();
  const rules = useRules(library);
  const judged = useJudged(measured, rules);
  const costs = useCosts(measured, judged, rules);
  const analysis = useMemo((): ClipAnalysis | null => {
    if (!measured || !rules) return null;
    const findings = judged.map((one) => ({ ...one, cost: costs.get(one.fault) ?? one.cost }));
    return { ...measured, rules, findings: ranked(findings, rules) };
  }, [measured, rules, judged, costs]);
  return createElement(
    LibraryContext,
    { value: library },
    createElement(AnalysisContext, { value: analysis }, children),
  );
}

/** Nothing that is measured has changed: the film's parts are kept as they are from edit to edit. */
function saysTheSame(a: ClipDocument, b: ClipDocument): boolean {
  const keys = Object.keys(b) as (keyof ClipDocument)[];
  return (
    keys.every((key) => key === 'strikes' || a[key] === b[key]) &&
    JSON.stringify(a.strikes) === JSON.stringify(b.strikes)
  );
}

/** The same object for as long as it says the same. */
function useStable(value: ClipDocument): ClipDocument {
  const [held, setHeld] = useState(value);
  if (saysTheSame(held, value)) return held;
  setHeld(value);
  return value;
}

/** Readings and findings of the strike in hand, anew whenever what they rest on changes. */
export function useAnalysis(): ClipAnalysis | null {
  return useContext(AnalysisContext);
}

/** What strikes are judged by in this gym. */
export function useLibrary(): Library {
  const library = useContext(LibraryContext);
  if (!library) throw new Error('a part of the bench stands outside its library');
  return library;
}
