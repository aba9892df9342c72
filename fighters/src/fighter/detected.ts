/** Known-answer detections: what a body tracker without faults would see of a fighter. */
import { detectionOf, type PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { project, viewAxes, type Camera } from '../film/camera';
import { mover } from './pose';
import type { Recipe } from './recipe';
import { dot, mix, subtract } from './space';
import { frameTimesOf } from './track';

export interface Detected {
  readonly frameTimes: readonly number[];
  readonly detections: readonly PoseDetection[];
}

/**
 * @param rate frames a second
 * @param noise standard deviation of every coordinate in the picture, pixels
 */
export function detected(
  recipe: Recipe,
  camera: Camera,
  { rate, noise, seed }: { rate: number; noise: number; seed: number },
): Detected {
  const frameTimes = frameTimesOf(recipe, rate);
  const pose = mover(recipe);
  const random = seeded(seed);
  const { right, up, forward } = viewAxes(camera);
  const detections = frameTimes.map((time, frame) => {
    const joints = pose(time);
    const hips = mix(joints.leftHip, joints.rightHip, 0.5);
    return detectionOf(frame, (landmark) => {
      const { x, y } = project(camera, joints[landmark]);
      const offset = subtract(joints[landmark], hips);
      return {
        x: x + noise * normal(random),
        y: y + noise * normal(random),
        visibility: 1,
        inSpace: [dot(offset, right), -dot(offset, up), dot(offset, forward)],
      };
    });
  });
  return { frameTimes, detections };
}
