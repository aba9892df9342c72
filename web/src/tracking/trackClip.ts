/** One clip's body tracking from its film to kept detections; it can be broken off and gone on with. */
import { wrap } from 'comlink';
import { boxOf, type Box } from '@sinew/core/observe/track/box';
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import type { FramesWorker } from '../video/frames.worker';
import { paced, type Progress } from '../video/progress';
import { strikesIn, takeOf, type Survey } from '@sinew/core/observe/take/survey';
import { survey as beginSurvey } from '../video/surveyor';
import { findPeople } from './findPeople';
import type { Found, Job } from '../api/job';
import { Detectors } from './detectors';
import { readBands, type BandedClip } from './readBands';
import { coarseFrames, framesOf, stretchesOf, whereToLook } from './plan';

/** What is known of the clip, and where what is found goes. */
export interface ClipAccess {
  readonly address: string;
  readonly width: number;
  readonly height: number;
  /** The file's own presentation times, seconds. */
  readonly frameTimes: readonly number[];
  readonly captureRate: number | null;
  /** Frames that have been tracked already. */
  readonly tracked: ReadonlySet<number>;
  survey(): Promise<Survey | null>;
  keepSurvey(survey: Survey): Promise<void>;
  keepFound(found: Found): Promise<void>;
  keep(detections: readonly PoseDetection[]): Promise<void>;
  /** Null when the student has no bands, or they have been read. */
  banded(): Promise<BandedClip | null>;
  keepBands(bands: KeptBands): Promise<void>;
}

/** What is being done now. */
export interface Step {
  readonly doing: 'survey' | 'people' | 'body' | 'bands';
  readonly progress: Progress;
}

export interface Outcome {
  readonly state: 'done' | 'failed';
  /** What the coach should know. */
  readonly message: string | null;
}

/** Decoded pictures kept while tracking, bytes: it goes forward only. */
const KEPT_BYTES = 24 * 1024 * 1024;
/** So many detections are sent at once. */
const SENT_AT_ONCE = 24;
/** The student must be found in this share of the coarse looks. */
const FOUND_ENOUGH = 0.25;

const NOBODY =
  'No person was found in this film. Draw a box round the student (B), or place points by hand.';

/** One core is left to the coach; each worker takes some 150 MB. */
function workerCount(): number {
  return Math.max(1, Math.min(4, navigator.hardwareConcurrency - 1));
}

/**
 * @param signal breaks it off; what was kept stays
 * @throws Error with a message for the coach; DOMException `AbortError` when broken off
 */
export async function trackClip(
  job: Pick<Job, 'model' | 'person' | 'found'>,
  clip: ClipAccess,
  onStep: (step: Step) => void,
  signal: AbortSignal,
): Promise<Outcome> {
  const survey = await surveyed(clip, onStep, signal);
  const film = await openFilm(clip.address);
  try {
    const times = realFrameTimes(clip.frameTimes, clip.captureRate);
    const found = job.found ?? (await people(job, clip, film, times, onStep, signal));
    if (found.people.length < FOUND_ENOUGH * coarseFrames(times).length) {
      return { state: 'failed', message: NOBODY };
    }
    const strikes = strikesIn(takeOf(survey, clip.frameTimes, clip.captureRate), null);
    const stretches = stretchesOf(strikes, times);
    const frames = framesOf(stretches, times);
    if (frames.length === 0) {
      return {
        state: 'failed',
        message: 'No strike was found in this film, so there was nothing to track.',
      };
    }
    await bodies(job, clip, film, frames, found, onStep, signal);
    const banded = await clip.banded();
    if (banded) {
      const advance = paced((progress) => onStep({ doing: 'bands', progress }));
      const picture = (frame: number) => film.frame(frame);
      await clip.keepBands(await readBands(banded, times, stretches, picture, advance, signal));
    }
    return { state: 'done', message: found.most > 1 && !job.person ? severalPeople(found) : null };
  } finally {
    film.close();
  }
}

function severalPeople({ most }: Found): string {
  return `${most} people are in the picture; the largest was followed. If that is not the student, draw a box round the right one (B).`;
}

async function surveyed(
  clip: ClipAccess,
  onStep: (step: Step) => void,
  signal: AbortSignal,
): Promise<Survey> {
  const known = await clip.survey();
  if (known) return known;
  const work = beginSurvey(clip.address, clip.frameTimes.length, (progress) =>
    onStep({ doing: 'survey', progress }),
  );
  signal.addEventListener('abort', work.cancel);
  const survey = await work.done;
  signal.throwIfAborted();
  await clip.keepSurvey(survey!);
  return survey!;
}

interface Film {
  frame(index: number): Promise<VideoFrame | ImageBitmap>;
  close(): void;
}

async function openFilm(address: string): Promise<Film> {
  const worker = new Worker(new URL('../video/frames.worker.ts', import.meta.url), {
    type: 'module',
  });
  const remote = wrap<FramesWorker>(worker);
  try {
    await remote.open(new URL(address, location.href).href, KEPT_BYTES);
  } catch (error) {
    worker.terminate();
    throw error;
  }
  return { frame: (index) => remote.frame(index), close: () => worker.terminate() };
}

async function people(
  job: Pick<Job, 'person'>,
  clip: ClipAccess,
  film: Film,
  times: readonly number[],
  onStep: (step: Step) => void,
  signal: AbortSignal,
): Promise<Found> {
  const several = 3;
  const detectors = await Detectors.start(1, 'quick', several);
  try {
    const advance = paced((progress) => onStep({ doing: 'people', progress }));
    const see = async (frame: number, within: Box) => {
      signal.throwIfAborted();
      const looker = await detectors.free();
      return (await detectors.look(looker, await film.frame(frame), [within], frame)).map(boxOf);
    };
    const found = await findPeople(see, coarseFrames(times), clip, job.person, advance);
    await clip.keepFound(found);
    return found;
  } finally {
    detectors.close();
  }
}

async function bodies(
  { model }: Pick<Job, 'model'>,
  clip: ClipAccess,
  film: Film,
  frames: readonly number[],
  found: Found,
  onStep: (step: Step) => void,
  signal: AbortSignal,
): Promise<void> {
  const left = frames.filter((frame) => !clip.tracked.has(frame));
  if (left.length === 0) return;
  const detectors = await Detectors.start(workerCount(), model);
  const advance = paced((progress) => onStep({ doing: 'body', progress }));
  const waiting: PoseDetection[] = [];
  const running = new Set<Promise<void>>();
  let done = 0;
  let failure: unknown = null;
  const send = async (atLeast: number) => {
    if (waiting.length >= atLeast) await clip.keep(waiting.splice(0));
  };
  try {
    for (const frame of left) {
      signal.throwIfAborted();
      if (failure) break;
      // One picture is decoded ahead while all workers look.
      const picture = await film.frame(frame);
      const looker = await detectors.free();
      const look = detectors
        .look(looker, picture, whereToLook(found.people, frame, clip), frame)
        .then(([seen]) => {
          if (seen) waiting.push(seen);
          done += 1;
          advance(done / left.length);
        })
        .catch((error: unknown) => {
          failure ??= error;
        })
        .finally(() => running.delete(look));
      running.add(look);
      await send(SENT_AT_ONCE);
    }
    await Promise.all(running);
    await send(1);
    if (failure) throw failure;
  } finally {
    detectors.close();
  }
}
