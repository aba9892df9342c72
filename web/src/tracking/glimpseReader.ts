/** Reads a hit that has just been heard from the film that is still being recorded. */
import { wrap, type Remote } from 'comlink';
import type { AtTheMat, Looks } from '@sinew/core/analysis/atTheMat';
import type { Glimpse } from '@sinew/core/measure/measures/glimpse';
import { boxOf, withRoom, type Box } from '@sinew/core/observe/track/box';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { RecentFilm } from '../video/recentFilm';
import { Detectors } from './detectors';
import { largest } from './findPeople';
import type { GlimpseWorker } from './glimpse.worker';

/** Seconds around the hit that are looked at: guard before it, and the hit itself. */
const BEFORE = 0.92;
const AFTER = 0.12;
/** Near the hit, looks lie closer together, seconds. */
const NEAR = 0.3;
const STEP_NEAR = 0.03;
const STEP_FAR = 0.09;
/** Room round the student in which the next look is made, as a share of their box. */
const ROOM = 0.5;

export class GlimpseReader {
  private constructor(
    private readonly detectors: Detectors,
    private readonly worker: Worker,
    private readonly remote: Remote<GlimpseWorker>,
  ) {}

  /** @throws Error with a message for the coach when this browser cannot run the tracker */
  static async start(): Promise<GlimpseReader> {
    const detectors = await Detectors.start(1, 'quick', 3);
    const worker = new Worker(new URL('./glimpse.worker.ts', import.meta.url), { type: 'module' });
    return new GlimpseReader(detectors, worker, wrap<GlimpseWorker>(worker));
  }

  /** @param hit seconds of the take */
  async read(film: RecentFilm, hit: number, about: AtTheMat): Promise<Glimpse> {
    return this.remote.glimpseAtTheMat(await this.look(film, hit), about);
  }

  close(): void {
    this.detectors.close();
    this.worker.terminate();
  }

  private async look(film: RecentFilm, hit: number): Promise<Looks> {
    const detections: PoseDetection[] = [];
    const times: number[] = [];
    let size = { width: 0, height: 0 };
    let student: Box | null = null;
    let next = -Infinity;
    for await (const frame of film.frames(hit - BEFORE, hit + AFTER)) {
      const time = frame.timestamp / 1e6;
      if (time < next) {
        frame.close();
        continue;
      }
      next = time + (time < hit - NEAR ? STEP_FAR : STEP_NEAR) - 1e-3;
      size = { width: frame.displayWidth, height: frame.displayHeight };
      const whole = { x: 0, y: 0, ...size };
      const seen = await this.detectors.look(
        await this.detectors.free(),
        frame,
        [student ? withRoom(student, ROOM, size) : whole],
        times.length,
      );
      times.push(time);
      const body = largest(seen, boxOf);
      student = body && boxOf(body);
      if (body) detections.push(body);
    }
    return { detections, times, ...size, hit };
  }
}
