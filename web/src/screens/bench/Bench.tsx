'use client';

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { queue } from '@/tracking/queue';
import type { Survey } from '@sinew/core/observe/take/survey';
import { sendSurvey, useSurvey } from '@/video/useSurvey';
import { giveKeysBack } from '@/ui/giveKeysBack';
import { BenchContext, createBenchStore, useBench, useBenchStore } from './document/benchStore';
import type { BenchProps } from './benchProps';
import { BenchKeys } from './commands/BenchKeys';
import { BenchTop } from './BenchTop';
import { ChainStrip } from './strip/ChainStrip';
import { Picture } from './picture/Picture';
import { ThumbSteps } from './picture/ThumbSteps';
import { SidePanel } from './panel/SidePanel';
import { adoptNewest } from './document/adoptNewest';
import { Others } from './document/Others';
import { DoubtKeys } from './panel/body/Doubts';
import { TalkOver } from './talk/TalkOver';
import { TrackingKeeper } from './document/TrackingKeeper';
import { AnalysisProvider } from './document/useAnalysis';
import { TrackedProvider } from './document/useTracked';

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
      <Others />
      <BenchKeys />
      <Surveyor known={props.survey} />
      <TrackingKeeper />
      <div
        className="flex flex-col md:h-[calc(100dvh-var(--bar,0px))] md:min-h-[640px] md:overflow-hidden"
        onClick={giveKeysBack}
      >
        <BenchTop />
        <TrackedProvider>
          <AnalysisProvider library={props.library}>
            <DoubtKeys />
            <TalkOver />
            <main className="flex flex-col md:grid md:min-h-0 md:flex-1 md:grid-cols-[minmax(0,61fr)_minmax(320px,39fr)] md:grid-rows-[minmax(0,1fr)_auto]">
              <Picture />
              <ThumbSteps />
              <SidePanel {...props} />
              <ChainStrip />
            </main>
          </AnalysisProvider>
        </TrackedProvider>
      </div>
    </BenchContext>
  );
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
    if (state.kind === 'done' && !known) {
      // With it in hand the server may have taken the strikes of a finished body search.
      void sendSurvey(clip.id, state.survey).then(() => adoptNewest(store));
    }
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
