/** The bands of a film, read as the app reads them, but with pictures from Debian's ffmpeg. */
import { spawnSync } from 'node:child_process';
import type { Stance } from '@sinew/core/foundation/body/landmarks';
import { PHONE_FOCAL, type WornBands } from '@sinew/core/observe/band/band';
import { keptBands, type KeptBands } from '@sinew/core/observe/band/bandTurns';
import { jointsInFilm } from '@sinew/core/observe/band/jointsInFilm';
import { BandReader } from '@sinew/core/observe/band/readBands';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { cleanDetections, trackFrom } from '@sinew/core/observe/track/trackFromDetections';
import type { Stretch } from '@sinew/web/tracking/plan';

interface BandedFilm {
  readonly path: string;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** Real time of every frame, seconds. */
  readonly times: readonly number[];
  /** In which bands are looked for. */
  readonly stretches: readonly Stretch[];
  readonly detections: readonly PoseDetection[];
  readonly stance: Stance;
  readonly worn: WornBands;
}

export function bandsIn(film: BandedFilm): KeptBands {
  const { path, width, height, times, stretches, detections, stance, worn } = film;
  const jointsAt = jointsInFilm(
    trackFrom(cleanDetections(detections, times), { placed: [], corrections: [] }, height).track,
  );
  const pictures = greysOf(path, width * height);
  const read = stretches.map(({ from, to }) => {
    const focal = PHONE_FOCAL * Math.max(width, height);
    const reader = new BandReader({ focal, azimuth: null, stance, bands: worn });
    const frames = Array.from({ length: to - from + 1 }, (_, i) => from + i);
    for (const frame of frames) {
      reader.see({ width, height, data: pictures[frame]! }, times[frame]!, jointsAt(frame));
    }
    return { frames, read: reader.read() };
  });
  return keptBands(read, worn, false);
}

function greysOf(path: string, size: number): Uint8Array[] {
  const args = ['-v', 'error', '-i', path, '-f', 'rawvideo', '-pix_fmt', 'gray', '-'];
  const { stdout, status, stderr } = spawnSync('ffmpeg', args, { maxBuffer: 1 << 30 });
  if (status !== 0) throw new Error(`ffmpeg: ${stderr.toString()}`);
  return Array.from({ length: stdout.length / size }, (_, i) =>
    stdout.subarray(i * size, (i + 1) * size),
  );
}
