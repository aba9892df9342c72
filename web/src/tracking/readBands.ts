/** The bands worn in a clip, read where its strikes are and its body has been found. */
import { transfer, wrap } from 'comlink';
import type { FilmDocument } from '@sinew/core/analysis/clipFacts';
import type { Stance } from '@sinew/core/foundation/body/landmarks';
import { PHONE_FOCAL, type WornBands } from '@sinew/core/observe/band/band';
import { keptBands, type KeptBands, type ReadStretch } from '@sinew/core/observe/band/bandTurns';
import { jointsInFilm } from '@sinew/core/observe/band/jointsInFilm';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { cleanDetections, trackFrom } from '@sinew/core/observe/track/trackFromDetections';
import type { Picture } from '../video/frameSource';
import type { BandsWorker } from './bands.worker';
import { framesOf, type Stretch } from './plan';

/** More pictures a second than this make a turn no surer (docs/accuracy.md). */
const RATE = 120;
/** Strips of so many pictures are held at once, some 90 kB each. */
const MOST_AT_ONCE = 600;

export interface BandedClip {
  readonly width: number;
  readonly height: number;
  readonly stance: Stance;
  readonly worn: WornBands;
  readonly document: Pick<FilmDocument, 'placed' | 'corrections'>;
  readonly detections: readonly PoseDetection[];
}

/**
 * @param times real time of every frame, seconds
 * @param stretches in which strikes are
 * @param picture a frame of the film, to be closed by whoever asks
 * @param onProgress called with a share of the work, 0 to 1
 * @throws DOMException `AbortError` when broken off
 */
export async function readBands(
  { width, height, stance, worn, document, detections }: BandedClip,
  times: readonly number[],
  stretches: readonly Stretch[],
  picture: (frame: number) => Promise<Picture>,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<KeptBands> {
  const { track } = trackFrom(cleanDetections(detections, times), document, height);
  const jointsAt = jointsInFilm(track);
  const parts = stretches.flatMap((one) => inParts(framesOf([one], times, RATE)));
  const worker = new Worker(new URL('./bands.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<BandsWorker>(worker);
  const read: ReadStretch[] = [];
  try {
    for (const [at, frames] of parts.entries()) {
      // Where the camera stands is not known well enough to help: a guard tells where square is.
      await remote.begin({
        focal: PHONE_FOCAL * Math.max(width, height),
        azimuth: null,
        stance,
        bands: worn,
      });
      for (const [i, frame] of frames.entries()) {
        signal.throwIfAborted();
        const seen = await picture(frame);
        await remote.see(transfer(seen, [seen]), times[frame]!, jointsAt(frame));
        onProgress((at + i / frames.length / 2) / parts.length);
      }
      read.push({ frames, read: await remote.read() });
    }
    signal.throwIfAborted();
    return keptBands(read, worn, false);
  } finally {
    worker.terminate();
  }
}

/** As many parts of like length as are needed. */
function inParts(frames: readonly number[]): (readonly number[])[] {
  const count = Math.ceil(frames.length / MOST_AT_ONCE);
  return Array.from({ length: count }, (_, i) =>
    frames.slice((i * frames.length) / count, ((i + 1) * frames.length) / count),
  );
}
