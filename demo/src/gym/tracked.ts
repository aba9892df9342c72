/** What the app's own body tracker has seen in demo films: made once, so that the demo opens at once. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { decodeDetections } from '@sinew/web/api/detectionBlob';

export const TRACKED_FILMS = [
  'cross-jammed.mp4',
  'elbow-side.mp4',
  'elbow-front.mp4',
  'kick-side.mp4',
  'kick-front.mp4',
] as const;

/** Null for a film that does not come tracked. */
export function detectionsIn(file: string): PoseDetection[] | null {
  if (!(TRACKED_FILMS as readonly string[]).includes(file)) return null;
  const path = fileURLToPath(new URL(`../../detections/${file}.bin`, import.meta.url));
  return decodeDetections(readFileSync(path));
}
