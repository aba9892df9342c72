/** What the app has found in the films that one phone is tried on: kept, so that the films are not needed. */
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { bandTurnsSchema, type KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { decodeDetections } from '@sinew/web/api/detectionBlob';
import type { PhoneFilm } from './phoneFilms';

export const phoneSearch = ({ id }: PhoneFilm, kind: 'bin' | 'bands.json') =>
  fileURLToPath(new URL(`../../detections/phone/${id}.${kind}`, import.meta.url));

export const isSearched = (film: PhoneFilm) => existsSync(phoneSearch(film, 'bin'));

export interface PhoneSearch {
  readonly detections: readonly PoseDetection[];
  /** Null where nobody wears any. */
  readonly bands: KeptBands | null;
}

/** Of a film that has been searched. */
export function searchedIn(film: PhoneFilm): PhoneSearch {
  const bands = phoneSearch(film, 'bands.json');
  return {
    detections: decodeDetections(readFileSync(phoneSearch(film, 'bin'))),
    bands: existsSync(bands)
      ? bandTurnsSchema.parse(JSON.parse(readFileSync(bands, 'utf8')))
      : null,
  };
}
