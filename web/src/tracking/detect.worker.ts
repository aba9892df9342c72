/** Looks for bodies in pictures off the main thread; see `detectors.ts` for the side that talks to it. */
import { expose } from 'comlink';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { BodyTracker } from './bodyTracker';
import { findIn, type Places } from './plan';
import type { Model } from '../api/models';

let tracker: BodyTracker | null = null;

const api = {
  /** @param files address of the folder that holds runtime and models */
  async load(files: string, model: Model, people: number): Promise<void> {
    tracker = await BodyTracker.load(files, model, people);
  },

  /**
   * @param picture is used up
   * @param places one after the other, until somebody is found
   */
  look(picture: VideoFrame | ImageBitmap, places: Places, frame: number): readonly PoseDetection[] {
    try {
      return findIn(places, (place) => tracker!.look(picture, place, frame));
    } finally {
      picture.close();
    }
  },
};

export type DetectWorker = typeof api;

expose(api);
