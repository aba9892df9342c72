/** Looks for bodies in pictures off the main thread; see `detectors.ts` for the side that talks to it. */
import { expose } from 'comlink';
import type { Box } from '@sinew/core/observe/track/box';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { BodyTracker } from './bodyTracker';
import type { Model } from '../api/models';

let tracker: BodyTracker | null = null;

const api = {
  /** @param files address of the folder that holds runtime and models */
  async load(files: string, model: Model, people: number): Promise<void> {
    tracker = await BodyTracker.load(files, model, people);
  },

  /** @param picture is used up */
  look(picture: VideoFrame | ImageBitmap, within: Box, frame: number): PoseDetection[] {
    try {
      return tracker!.look(picture, within, frame);
    } finally {
      picture.close();
    }
  },
};

export type DetectWorker = typeof api;

expose(api);
