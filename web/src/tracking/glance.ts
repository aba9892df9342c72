/** A glance at a film that is not a clip yet: a few looks at the body say from where it was filmed. */
import { wrap, type Remote } from 'comlink';
import PQueue from 'p-queue';
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { boxOf } from '@sinew/core/observe/track/box';
import { seen, type PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { viewGuess, viewSeen } from '@sinew/core/observe/track/viewSeen';
import type { FramesWorker } from '../video/frames.worker';
import { Detectors } from './detectors';
import { largest } from './findPeople';

/** Looks, spread over the film: enough for a median, and a second or two of work. */
const LOOKS = 16;
/** Decoded pictures kept, bytes: each frame is looked at once. */
const KEPT_BYTES = 16 * 1024 * 1024;
/** A part that the tracker believes in less is not said to have been seen. */
const BELIEVED = 0.5;

export interface Glance {
  /** The view that it looks like; null where nothing tells. */
  readonly guess: View | null;
  /** Whether the film cannot have been taken from there. */
  doubts(declared: View): boolean;
}

/** One film after the other: each glance takes a core and a model's memory. */
const queue = new PQueue({ concurrency: 1 });

/**
 * @param size pixels of the picture
 * @param count frames of the film
 * @returns null where the body could not be looked at; that costs no more than a guess
 */
export async function glanceAt(
  film: File,
  size: { readonly width: number; readonly height: number },
  count: number,
  signal: AbortSignal,
): Promise<Glance | null> {
  const detections = await queue
    .add(async () => (signal.aborted ? [] : lookAt(film, size, count, signal)))
    .catch(() => []);
  if (signal.aborted || !detections?.length) return null;
  const track = { points: pointsOf(detections) };
  return { guess: viewGuess(track), doubts: (declared) => viewSeen(track, declared) !== null };
}

async function lookAt(
  film: File,
  { width, height }: { readonly width: number; readonly height: number },
  count: number,
  signal: AbortSignal,
): Promise<PoseDetection[]> {
  const worker = new Worker(new URL('../video/frames.worker.ts', import.meta.url), {
    type: 'module',
  });
  const frames: Remote<FramesWorker> = wrap<FramesWorker>(worker);
  let detectors: Detectors | null = null;
  try {
    await frames.open(film, KEPT_BYTES);
    detectors = await Detectors.start(1, 'quick', 3);
    const found: PoseDetection[] = [];
    for (let look = 0; look < LOOKS && !signal.aborted; look++) {
      const frame = Math.floor(((look + 0.5) / LOOKS) * count);
      const looker = await detectors.free();
      const whole = { x: 0, y: 0, width, height };
      const people = await detectors.look(looker, await frames.frame(frame), [whole], frame);
      const student = largest(people, boxOf);
      if (student) found.push(student);
    }
    return found;
  } finally {
    worker.terminate();
    detectors?.close();
  }
}

function pointsOf(detections: readonly PoseDetection[]) {
  return Object.fromEntries(
    LANDMARKS.map((landmark) => {
      const known = detections
        .map((one) => ({ frame: one.frame, ...seen(one, landmark) }))
        .filter(({ visibility }) => visibility >= BELIEVED || HEAD.has(landmark));
      return [
        landmark,
        {
          frames: known.map(({ frame }) => frame),
          x: known.map(({ x }) => x),
          y: known.map(({ y }) => y),
          sigma: known.map(() => 0),
        },
      ];
    }),
  );
}

/** The far ear of a head in profile is hidden, and where it is thought to be tells all the same. */
const HEAD: ReadonlySet<Landmark> = new Set(['nose', 'leftEar', 'rightEar']);
