/**
 * What a body tracker saw in one frame, before anything is made of it: for every landmark where it
 * is in the picture, how surely it is to be seen, and where it is guessed to be in space.
 */
import { LANDMARKS, type Landmark } from '../../foundation/body/landmarks';

/** Numbers of one landmark: x, y, visibility, and the place in space. */
export const SEEN_SIZE = 6;

export interface PoseDetection {
  readonly frame: number;
  /** `SEEN_SIZE` numbers for each of `LANDMARKS`, in that order. */
  readonly values: Float32Array;
}

export interface Seen {
  /** Pixels from the left and from the top. */
  readonly x: number;
  readonly y: number;
  /** 0 (surely hidden) to 1 (surely to be seen), as the tracker believes. */
  readonly visibility: number;
  /** Metres from the middle of the hips: to the right of the picture, down, away from the camera. */
  readonly inSpace: readonly [number, number, number];
}

const INDEX = new Map(LANDMARKS.map((landmark, i) => [landmark, i * SEEN_SIZE]));

export function seen({ values }: PoseDetection, landmark: Landmark): Seen {
  const at = INDEX.get(landmark)!;
  return {
    x: values[at]!,
    y: values[at + 1]!,
    visibility: values[at + 2]!,
    inSpace: [values[at + 3]!, values[at + 4]!, values[at + 5]!],
  };
}

export function detectionOf(frame: number, see: (landmark: Landmark) => Seen): PoseDetection {
  const values = new Float32Array(LANDMARKS.length * SEEN_SIZE);
  for (const [landmark, at] of INDEX) {
    const { x, y, visibility, inSpace } = see(landmark);
    values.set([x, y, visibility, ...inSpace], at);
  }
  return { frame, values };
}
