/** Several workers that look at pictures at once; never more pictures are out than there are workers. */
import { transfer, wrap, type Remote } from 'comlink';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { DetectWorker } from './detect.worker';
import type { Places } from './plan';
import type { Model } from '../api/models';

interface Looker {
  readonly worker: Worker;
  readonly remote: Remote<DetectWorker>;
}

export class Detectors {
  private readonly idle: Looker[];
  private readonly waiting: ((looker: Looker) => void)[] = [];

  private constructor(private readonly all: readonly Looker[]) {
    this.idle = [...all];
  }

  /**
   * @param people how many people at most are looked for in one picture
   * @throws Error with a message for the coach when this browser cannot run the tracker
   */
  static async start(count: number, model: Model, people = 1): Promise<Detectors> {
    const all = Array.from({ length: count }, (): Looker => {
      const worker = new Worker(new URL('./detect.worker.ts', import.meta.url), { type: 'module' });
      return { worker, remote: wrap<DetectWorker>(worker) };
    });
    try {
      const files = new URL('/tracker', location.href).href;
      await Promise.all(all.map(({ remote }) => remote.load(files, model, people)));
    } catch (error) {
      for (const { worker } of all) worker.terminate();
      throw error;
    }
    return new Detectors(all);
  }

  /** Resolves once a worker is free, so that no more pictures need be decoded than can be looked at. */
  async free(): Promise<Looker> {
    return this.idle.pop() ?? new Promise((resolve) => this.waiting.push(resolve));
  }

  /**
   * @param picture is used up
   * @param places one after the other, until somebody is found
   */
  async look(
    looker: Looker,
    picture: VideoFrame | ImageBitmap,
    places: Places,
    frame: number,
  ): Promise<readonly PoseDetection[]> {
    try {
      return await looker.remote.look(transfer(picture, [picture]), places, frame);
    } finally {
      this.release(looker);
    }
  }

  release(looker: Looker): void {
    const next = this.waiting.shift();
    if (next) next(looker);
    else this.idle.push(looker);
  }

  close(): void {
    for (const { worker } of this.all) worker.terminate();
  }
}
