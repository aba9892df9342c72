/** What the app itself has found in demo films: made once, so that the demo opens at once. */
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { bandTurnsSchema, type KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { strikesIn, surveySchema, takeOf, type Survey } from '@sinew/core/observe/take/survey';
import { stretchesOf } from '@sinew/web/tracking/plan';
import { decodeDetections } from '@sinew/web/api/detectionBlob';

export const TRACKED_FILMS = [
  'cross-jammed.mp4',
  'cross-bands.mp4',
  'hook-bands.mp4',
  'cross-tape.mp4',
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

/** What the bands worn in it told; null where nobody wears any. */
export function bandsIn(file: string): KeptBands | null {
  const path = fileURLToPath(new URL(`../../detections/${file}.bands.json`, import.meta.url));
  return existsSync(path) ? bandTurnsSchema.parse(JSON.parse(readFileSync(path, 'utf8'))) : null;
}

/** What going through such a film has told. */
export function surveyIn(file: string): Survey {
  const path = fileURLToPath(new URL(`../../detections/${file}.survey.json`, import.meta.url));
  return surveySchema.parse(JSON.parse(readFileSync(path, 'utf8')));
}

/** Which frames of a film of steady rate are looked at, and how large they are. */
export function lookedAt(survey: Survey, rate: number) {
  const times = survey.amounts.map((_, i) => i / rate);
  const stretches = stretchesOf(strikesIn(takeOf(survey, times, null), null), times);
  return { width: survey.width, height: survey.height, times, stretches };
}
