/**
 * Parts of the bench on their own: a made-up fighter, measured in space, on a bench without a server.
 * What it would ask of a server or a worker has doubles in `doubles.ts`, which a test names by `vi.mock`.
 */
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { expect } from 'vitest';
import {
  EMPTY_DOCUMENT,
  type ClipDocument,
  type StrikeDocument,
} from '@sinew/core/analysis/clipDocument';
import { libraryFrom, NO_EDITS } from '@sinew/core/judge/library/edits';
import { EVENTS } from '@sinew/core/measure/events/events';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { clean, FAULT_CHANGES, type KnownFault } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import {
  BenchContext,
  createBenchStore,
  documentOf,
  strikeOf,
} from '@/screens/bench/document/benchStore';
import { AnalysisProvider, useAnalysis } from '@/screens/bench/document/useAnalysis';
import { TrackedProvider } from '@/screens/bench/document/useTracked';
import { CommandKeys } from '@/ui/commands/CommandKeys';

/** A jammed cross, measured in space at 240 frames a second and marked where the truth is. */
export function jammedCross(fault: KnownFault = 'jammed') {
  const recipe = clean('cross', FAULT_CHANGES[fault]);
  const track = knownTrack(recipe, { rate: 240, noise: 0.001, seed: 1 });
  const times = knownTimes(recipe);
  const marks = Object.fromEntries(
    EVENTS.map((name) => [name, { frame: nearestFrame(track.frameTimes, times[name]), width: 1 }]),
  );
  const strike: StrikeDocument = { id: 'one', technique: 'cross', side: 'right', marks };
  return { strike, series: { fileName: 'take.json', begins: 0, track } };
}

interface Given {
  readonly document?: Partial<ClipDocument>;
  /** None: a film of which nothing is known. */
  readonly strike?: StrikeDocument | null;
  readonly start?: Partial<Parameters<typeof createBenchStore>[4]>;
  readonly frameTimes?: readonly number[];
}

/** Nothing on disk moves in these tests; what would be sent is looked at in the document itself. */
export function benchWith({ document, strike, start, frameTimes }: Given = {}) {
  const own = jammedCross();
  const first = strike === undefined ? own.strike : strike;
  return createBenchStore(
    {
      id: 'clip',
      studentId: 'student',
      studentName: 'Ida Brandt',
      fileName: 'cross.mp4',
      mimeType: 'video/mp4',
      view: 'side',
      captureRate: null,
      width: 1280,
      height: 720,
      frameTimes: frameTimes ?? own.series.track.frameTimes,
      isPurged: false,
    },
    { school: {}, stance: 'orthodox', heightM: 1.76, massKg: 70 },
    { revision: 0, document: { ...EMPTY_DOCUMENT, strikes: first ? [first] : [], ...document } },
    { strikeId: first?.id ?? null, frame: 0 },
    {
      survey: null,
      second: null,
      job: null,
      series: first ? own.series : null,
      bands: null,
      ...start,
    },
  );
}

/** Draws a part of the bench, with its keys. */
export function onBench(
  store: ReturnType<typeof createBenchStore>,
  part: (analysis: NonNullable<ReturnType<typeof useAnalysis>>) => ReactNode,
) {
  const user = userEvent.setup();
  const library = libraryFrom(NO_EDITS);
  const drawn = render(
    <BenchContext value={store}>
      <CommandKeys />
      <TrackedProvider>
        <AnalysisProvider library={library}>
          <Part part={part} />
        </AnalysisProvider>
      </TrackedProvider>
    </BenchContext>,
  );
  return { user, store, ...drawn };
}

function Part({
  part,
}: {
  part: (analysis: NonNullable<ReturnType<typeof useAnalysis>>) => ReactNode;
}) {
  const analysis = useAnalysis();
  // Parts that need no strike are drawn without one.
  return <>{part(analysis as NonNullable<typeof analysis>)}</>;
}

export const documentIn = (store: ReturnType<typeof createBenchStore>) =>
  documentOf(store.getState());

/** The strike in hand. */
export function strikeIn(store: ReturnType<typeof createBenchStore>): StrikeDocument {
  const strike = strikeOf(store.getState());
  expect(strike).not.toBeNull();
  return strike!;
}
