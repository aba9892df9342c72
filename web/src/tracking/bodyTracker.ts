/**
 * The body tracker behind one interface: a picture in, a detection out. Runs wherever there is a
 * canvas with WebGL2, which is a worker in the app and a page in the accuracy runs.
 */
import { FilesetResolver, PoseLandmarker, type PoseLandmarkerResult } from './prepared/vision.mjs';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { detectionOf, type PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { Box } from '@sinew/core/observe/track/box';
import type { Model } from '../api/models';

/** The landmarks by their place among the 33 of the pose model, which names the person's own sides. */
const PLACES: Readonly<Record<Landmark, number>> = {
  nose: 0,
  leftEar: 7,
  rightEar: 8,
  leftShoulder: 11,
  rightShoulder: 12,
  leftElbow: 13,
  rightElbow: 14,
  leftWrist: 15,
  rightWrist: 16,
  leftLittleKnuckle: 17,
  rightLittleKnuckle: 18,
  leftIndexKnuckle: 19,
  rightIndexKnuckle: 20,
  leftHip: 23,
  rightHip: 24,
  leftKnee: 25,
  rightKnee: 26,
  leftAnkle: 27,
  rightAnkle: 28,
  leftHeel: 29,
  rightHeel: 30,
  leftToe: 31,
  rightToe: 32,
};

/** The longer side of what the model is shown, pixels: it works on 256 × 256 of the person itself. */
const SHOWN = 512;

export class BodyTracker {
  private readonly canvas = new OffscreenCanvas(SHOWN, SHOWN);
  private readonly context = this.canvas.getContext('2d', { willReadFrequently: true })!;

  private constructor(private readonly landmarker: PoseLandmarker) {}

  /**
   * @param files address of the folder that holds runtime and models
   * @param people how many people at most are looked for in one picture
   * @throws Error with a message for the coach when this browser cannot run it
   */
  static async load(files: string, model: Model, people = 1): Promise<BodyTracker> {
    try {
      const runtime = await FilesetResolver.forVisionTasks(files, isModuleWorker());
      const landmarker = await PoseLandmarker.createFromOptions(runtime, {
        baseOptions: { modelAssetPath: `${files}/${model}.task`, delegate: 'CPU' },
        // Every picture by itself: following from the last one lags behind fast hands.
        runningMode: 'IMAGE',
        numPoses: people,
      });
      return new BodyTracker(landmarker);
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      throw new Error(
        `The body tracker does not start in this browser (${why}). Points can be placed by hand.`,
        { cause: error },
      );
    }
  }

  /**
   * @param picture stays the caller's
   * @param within the part to look at, pixels of the picture
   * @returns everybody found, the surest first
   */
  look(picture: CanvasImageSource, within: Box, frame: number): PoseDetection[] {
    const scale = SHOWN / Math.max(within.width, within.height);
    const [width, height] = [within.width * scale, within.height * scale].map(Math.round);
    this.canvas.width = width!;
    this.canvas.height = height!;
    const { x, y } = within;
    this.context.drawImage(
      ...([picture, x, y, within.width, within.height] as const),
      ...([0, 0, width!, height!] as const),
    );
    const result = this.landmarker.detect(this.canvas);
    const detections = result.landmarks.map((_, person) => read(result, person, within, frame));
    result.close();
    return detections;
  }

  close(): void {
    this.landmarker.close();
  }
}

declare function importScripts(...addresses: string[]): void;

/** The runtime comes in two kinds: bundlers make workers of modules, or of plain scripts. */
function isModuleWorker(): boolean {
  try {
    importScripts();
    return false;
  } catch {
    return true;
  }
}

function read(
  result: PoseLandmarkerResult,
  person: number,
  within: Box,
  frame: number,
): PoseDetection {
  const [inPicture, inSpace] = [result.landmarks[person]!, result.worldLandmarks[person]!];
  return detectionOf(frame, (landmark) => {
    const [at, place] = [inPicture[PLACES[landmark]]!, inSpace[PLACES[landmark]]!];
    return {
      x: within.x + at.x * within.width,
      y: within.y + at.y * within.height,
      visibility: at.visibility,
      inSpace: [place.x, place.y, place.z],
    };
  });
}
