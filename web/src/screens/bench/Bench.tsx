'use client';

import { useEffect, useState } from 'react';
import type { Cue, Decision } from '@/data/finding/findings';
import type { SavedBench } from '@/data/bench/bench';
import type { Library } from '@sinew/core/judge/library/edits';
import type { CameraSetup } from '@/data/gym/cameraSetups';
import type { ClipSummary } from '@/data/clip/clips';
import type { SecondView } from '@/data/clip/viewPairs';
import { useStore } from 'zustand';
import type { Job } from '@/tracking/job';
import { queue } from '@/tracking/queue';
import type { Survey } from '@/video/survey';
import { sendSurvey, useSurvey } from '@/video/useSurvey';
import type { ImportedSeries, StudentFacts } from '@sinew/core/analysis/clipFacts';
import { giveKeysBack } from '@/ui/giveKeysBack';
import {
  BenchContext,
  createBenchStore,
  useBench,
  useBenchStore,
  type BenchClip,
  type BenchStore,
} from './document/benchStore';
import { BenchKeys } from './commands/BenchKeys';
import { BenchTop } from './BenchTop';
import { ChainStrip } from './strip/ChainStrip';
import { Picture } from './picture/Picture';
import { SidePanel } from './panel/SidePanel';
import { AutomaticStrikes } from './document/AutomaticStrikes';
import { DoubtKeys } from './panel/body/Doubts';
import { TrackingKeeper } from './document/TrackingKeeper';
import { AnalysisProvider } from './document/useAnalysis';
import { TrackedProvider } from './document/useTracked';

export interface BenchProps {
  readonly clip: BenchClip;
  readonly student: StudentFacts;
  readonly saved: SavedBench;
  readonly library: Library;
  readonly start: { readonly strikeId: string | null; readonly frame: number };
  readonly decisions: Readonly<Record<string, readonly Decision[]>>;
  readonly cues: readonly Cue[];
  readonly survey: Survey | null;
  readonly second: SecondView | null;
  readonly job: Job | null;
  readonly series: ImportedSeries | null;
  readonly setups: readonly CameraSetup[];
  /** The student's other clips, newest first. */
  readonly others: readonly ClipSummary[];
}

/** Where a clip is worked: picture, chain strip, faults and cue. */
export function Bench(props: BenchProps) {
  const [store] = useState(() =>
    createBenchStore(props.clip, props.student, props.saved, props.start, props),
  );

  useEffect(() => {
    void adoptNewest(store);
    const warn = (event: BeforeUnloadEvent) => {
      if (store.getState().hasUnsaved()) event.preventDefault();
    };
    const saveNow = () => void store.getState().flush();
    addEventListener('beforeunload', warn);
    addEventListener('pagehide', saveNow);
    return () => {
      removeEventListener('beforeunload', warn);
      removeEventListener('pagehide', saveNow);
      saveNow();
    };
  }, [store]);

  return (
    <BenchContext value={store}>
      <AddressKeeper />
      <BenchKeys />
      <Surveyor known={props.survey} />
      <TrackingKeeper />
      <AutomaticStrikes />
      <div
        className="flex h-[calc(100dvh-var(--bar,0px))] min-h-[640px] flex-col overflow-hidden"
        onClick={giveKeysBack}
      >
        <BenchTop />
        <TrackedProvider>
          <AnalysisProvider library={props.library}>
            <DoubtKeys />
            <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,61fr)_minmax(320px,39fr)] grid-rows-[minmax(0,1fr)_auto]">
              <Picture />
              <SidePanel {...props} />
              <ChainStrip />
            </main>
          </AnalysisProvider>
        </TrackedProvider>
      </div>
    </BenchContext>
  );
}

/**
 * The browser's Back may bring this page up from memory, as it was before the last changes; what
 * is on disk wins over that.
 */
async function adoptNewest(store: BenchStore): Promise<void> {
  const { clip, adopt } = store.getState();
  const response = await fetch(`/api/clips/${clip.id}/bench`).catch(() => null);
  if (response?.ok) adopt((await response.json()) as SavedBench);
}

/** Goes through the film in the background, unless that has been done or the tracker is at it. */
function Surveyor({ known }: { known: Survey | null }) {
  const store = useBenchStore();
  const clip = useBench((state) => state.clip);
  // The first picture comes first.
  const isShown = useBench(({ shownFrame }) => shownFrame !== null);
  const isOff = useStore(queue, (state) => state.isOff);
  const isTrackers = useBench(({ job }) => job?.state === 'wanted') && !isOff;
  const stored = useBench(({ survey }) => (survey.kind === 'done' ? survey.survey : null));
  const { state, cancel, again } = useSurvey(
    isShown && !isTrackers ? `/api/clips/${clip.id}/file` : null,
    clip.frameTimes.length,
    known ?? stored,
  );
  useEffect(() => {
    if (stored && state.kind !== 'done') return;
    store.getState().surveyed(state, { cancel, again });
    if (state.kind === 'done' && !known) void sendSurvey(clip.id, state.survey);
  }, [store, state, cancel, again, clip.id, known, stored]);
  return null;
}

/**
 * Keeps frame and strike in the address, so that a moment of a clip can be linked and reloaded.
 * The entry keeps its state: without it the router takes the change for a navigation of its own
 * and drops one that is under way, and a click on a link just after opening would do nothing.
 */
function AddressKeeper() {
  const frame = useBench((state) => state.frame);
  const strikeId = useBench((state) => state.strikeId);
  useEffect(() => {
    const timer = setTimeout(() => {
      const query = new URLSearchParams({ frame: String(frame) });
      if (strikeId) query.set('strike', strikeId);
      window.history.replaceState(window.history.state, '', `?${query}`);
    }, 250);
    return () => clearTimeout(timer);
  }, [frame, strikeId]);
  return null;
}
