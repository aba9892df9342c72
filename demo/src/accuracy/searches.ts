/**
 * What the app's own body tracker found in the films that the tracked tables rest on: kept, so that the tables
 * can be made again, and tests run on them, without films. Delete a file to have it searched anew.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { decodeDetections, encodeDetections } from '@sinew/web/api/detectionBlob';
import type { TrackedFilm } from './track.worker';

const pathOf = (name: string) =>
  fileURLToPath(new URL(`../../detections/tried/${name}.bin`, import.meta.url));

/** Null for a film that has not been searched. */
export function keptSearch(name: string): PoseDetection[] | null {
  return existsSync(pathOf(name)) ? decodeDetections(readFileSync(pathOf(name))) : null;
}

/** @param search goes through the film; only where nothing is kept */
export async function searchOf(
  name: string,
  search: () => Promise<TrackedFilm>,
): Promise<PoseDetection[]> {
  const kept = keptSearch(name);
  if (kept) return kept;
  const { detections } = await search();
  const found = detections.map(([frame, values]) => ({
    frame,
    values: Float32Array.from(values),
  }));
  mkdirSync(dirname(pathOf(name)), { recursive: true });
  writeFileSync(pathOf(name), encodeDetections(found));
  return found;
}
