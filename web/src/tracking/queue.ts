/**
 * Tracks one clip after the other in the background, in one tab of the browser, wherever the coach
 * is in the app; a page that is closed breaks it off, and the next one opened goes on with it.
 */
import { nanoid } from 'nanoid';
import { createStore } from 'zustand/vanilla';
import { sendSurvey } from '../video/useSurvey';
import type { Job } from '../api/job';
import { ask } from '../api/client';
import { CLIP_FACTS, END_LEASE, TAKE_LEASE } from '../api/endpoints';
import {
  bandsOf,
  changeJob,
  keepBands,
  keepDetections,
  onNews,
  openJobs,
  detectionsOf,
  surveyOf,
  tell,
} from './requests';
import { trackClip, type ClipAccess, type Outcome, type Step } from './trackClip';

export interface QueueState {
  /** Tracked here and now; null when there is nothing to do, or another tab does it. */
  readonly current: { readonly job: Job; readonly step: Step | null } | null;
  /** All that is wanted or paused, oldest first. */
  readonly jobs: readonly Job[];
  /** The coach has switched it off in this browser. */
  readonly isOff: boolean;
  /** What was finished here last; null until something is. */
  readonly ended: { readonly job: Job; readonly state: Outcome['state'] } | null;
}

const OFF = 'sinew.tracking.off';
/** Looks for new work at least this often, milliseconds. */
const PATIENCE = 20_000;

export const queue = createStore<QueueState>()(() => ({
  current: null,
  jobs: [],
  isOff: false,
  ended: null,
}));

let breakOff: AbortController | null = null;

export function switchOff(isOff: boolean): void {
  if (isOff) localStorage.setItem(OFF, 'yes');
  else localStorage.removeItem(OFF);
  queue.setState({ isOff });
  if (isOff) breakOff?.abort();
  tell(null);
}

/** Start working. @returns how to stop */
export function startQueue(): () => void {
  queue.setState({ isOff: localStorage.getItem(OFF) !== null });
  const closing = new AbortController();
  const isOver = () => closing.signal.aborted;
  const stopListening = onNews(({ clipId, isMore }) => {
    if (!isMore) void refresh(clipId);
  });
  void refresh(null);
  // Only one tab works; the others wait for it to be closed.
  navigator.locks
    .request('sinew-tracking', { signal: closing.signal }, async () => {
      while (!isOver()) {
        const job = queue.getState().isOff ? null : await nextJob();
        if (job) await work(job, closing.signal);
        else await news(closing.signal);
      }
    })
    .catch(() => undefined);
  return () => {
    stopListening();
    closing.abort();
    breakOff?.abort();
  };
}

/** What is kept has changed: the one in hand may have been paused, given up or begun anew. */
async function refresh(clipId: string | null): Promise<void> {
  const jobs = await openJobs().catch(() => null);
  if (!jobs) return;
  queue.setState({ jobs });
  const { current } = queue.getState();
  if (!current || (clipId !== null && clipId !== current.job.clipId)) return;
  if (!jobs.some((job) => isSame(job, current.job))) breakOff?.abort();
}

const asked = ({ clipId, model, person, state }: Job) =>
  JSON.stringify([clipId, model, person, state]);

const isSame = (kept: Job, running: Job) => asked(kept) === asked(running);

async function nextJob(): Promise<Job | null> {
  const jobs = await openJobs().catch(() => []);
  queue.setState({ jobs });
  for (const job of jobs.filter(({ state }) => state === 'wanted')) {
    if (await isOurs(job.clipId)) return job;
  }
  return null;
}

/** By which other browsers, on this machine or another, know this one. */
const WORKER = nanoid();
/** Milliseconds between one word to the server that the work goes on and the next; it waits for three. */
const RENEWED_EVERY = 15_000;

const isOurs = (clipId: string): Promise<boolean> =>
  ask(TAKE_LEASE, [clipId], { worker: WORKER }).then(
    ({ isYours }) => isYours,
    () => false,
  );

/** A server that does not answer for a moment has not given the work to anybody else. */
const isNotLost = (clipId: string): Promise<boolean> =>
  ask(TAKE_LEASE, [clipId], { worker: WORKER }).then(
    ({ isYours }) => isYours,
    () => true,
  );

function news(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      stop();
      signal.removeEventListener('abort', done);
      resolve();
    };
    const timer = setTimeout(done, PATIENCE);
    const stop = onNews(done);
    signal.addEventListener('abort', done);
  });
}

/** Progress is shown no oftener than this, milliseconds: drawing it takes its share of the machine. */
const SHOWN_EVERY = 500;

function showing(job: Job): (step: Step) => void {
  let last = -Infinity;
  let doing: Step['doing'] | null = null;
  return (step) => {
    const now = performance.now();
    if (step.doing === doing && now - last < SHOWN_EVERY) return;
    [last, doing] = [now, step.doing];
    queue.setState({ current: { job, step } });
  };
}

async function work(job: Job, closing: AbortSignal): Promise<void> {
  const { clipId } = job;
  breakOff = new AbortController();
  const { signal } = breakOff;
  queue.setState({ current: { job, step: null } });
  const renewing = setInterval(() => {
    void isNotLost(clipId).then((isKept) => isKept || breakOff?.abort());
  }, RENEWED_EVERY);
  const outcome = await clipAccess(clipId)
    .then((clip) => trackClip(job, clip, showing(job), signal))
    .catch((error: unknown): Outcome | null =>
      signal.aborted || closing.aborted
        ? null
        : { state: 'failed', message: error instanceof Error ? error.message : String(error) },
    );
  clearInterval(renewing);
  queue.setState({ current: null });
  if (outcome && !signal.aborted) {
    await changeJob(clipId, { kind: 'finish', ...outcome }).catch(() => undefined);
    queue.setState({ ended: { job, state: outcome.state } });
  }
  await ask(END_LEASE, [clipId], { worker: WORKER }).catch(() => undefined);
}

async function clipAccess(clipId: string): Promise<ClipAccess> {
  const { clip, bench, stance, worn } = await ask(CLIP_FACTS, [clipId]);
  const seen = await detectionsOf(clipId);
  return {
    address: `/api/clips/${clipId}/file`,
    width: clip.width,
    height: clip.height,
    frameTimes: clip.frameTimes,
    captureRate: bench.document.captureRate,
    tracked: new Set(seen.map(({ frame }) => frame)),
    survey: () => surveyOf(clipId),
    keepSurvey: async (survey) => {
      await sendSurvey(clipId, survey);
      tell(clipId);
    },
    keepFound: (found) => changeJob(clipId, { kind: 'found', found }),
    keep: async (detections) => {
      await keepDetections(clipId, detections);
      tell(clipId, true);
    },
    banded: async () => {
      if (Object.keys(worn).length === 0 || (await bandsOf(clipId))) return null;
      const { width, height } = clip;
      const detections = await detectionsOf(clipId);
      return { width, height, stance, worn, document: bench.document, detections };
    },
    keepBands: async (bands) => {
      await keepBands(clipId, bands);
      tell(clipId);
    },
  };
}
