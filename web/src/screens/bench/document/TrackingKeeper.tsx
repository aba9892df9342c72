'use client';

import { useEffect } from 'react';
import { bandsOf, jobOf, onNews, detectionsOf, surveyOf } from '@/tracking/requests';
import { adoptNewest } from './adoptNewest';
import { useBench, useBenchStore } from './benchStore';

/**
 * While a film is being tracked what is new is taken over no oftener than this, milliseconds: it is
 * all worked out anew each time.
 */
const PACE = 8000;

/** Keeps the bench up to date with what the body tracker has seen, here or in another tab. */
export function TrackingKeeper() {
  const store = useBenchStore();
  const clipId = useBench((state) => state.clip.id);
  const secondId = useBench((state) => state.second?.clip.id ?? null);

  useEffect(
    () =>
      keepUp(clipId, async () => {
        const [job, detections, bands] = await Promise.all([
          jobOf(clipId),
          detectionsOf(clipId),
          bandsOf(clipId),
        ]);
        const { detections: known, job: before } = store.getState();
        const isNew = detections.length > 0 || known.length > 0;
        store.getState().tracked(job, isNew ? detections : known);
        // As they are, bands that say the same leave what rests on them alone.
        if (JSON.stringify(bands) !== JSON.stringify(store.getState().bands)) {
          store.getState().banded(bands);
        }
        const { survey, surveyControl, surveyed } = store.getState();
        // The tracker has gone through the film meanwhile.
        if (survey.kind !== 'done' && job) {
          const found = await surveyOf(clipId);
          if (found && surveyControl) surveyed({ kind: 'done', survey: found }, surveyControl);
        }
        if (job?.state === 'done' && before?.state !== 'done') await adoptNewest(store);
      }),
    [store, clipId],
  );
  useEffect(() => {
    if (secondId === null) return;
    return keepUp(secondId, async () => {
      const detections = await detectionsOf(secondId);
      if (detections.length > 0) store.getState().trackedInSecond(detections);
    });
  }, [store, secondId]);
  return null;
}

/** Fetches now and after news of a clip, one at a time. @returns how to stop */
function keepUp(clipId: string, fetchAll: () => Promise<void>): () => void {
  let isOver = false;
  let isRunning = false;
  let isStale = false;
  let last = 0;
  const update = async () => {
    isStale = true;
    if (isRunning) return;
    isRunning = true;
    while (isStale && !isOver) {
      isStale = false;
      last = performance.now();
      // What cannot be fetched now is fetched with the next news.
      await fetchAll().catch(() => undefined);
    }
    isRunning = false;
  };
  const stop = onNews((news) => {
    const isMine = news.clipId === null || news.clipId === clipId;
    if (isMine && (!news.isMore || performance.now() - last > PACE)) void update();
  });
  void update();
  return () => {
    isOver = true;
    stop();
  };
}
