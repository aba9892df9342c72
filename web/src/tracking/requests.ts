/** What pages ask of the server about body tracking, and how tabs tell each other. */
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { JobRequest } from '../api/job';
import { ask, askBytes } from '../api/client';
import {
  BANDS_READ,
  CHANGE_JOB,
  DROP_JOB,
  JOB,
  KEEP_BANDS,
  OPEN_JOBS,
  SURVEY,
} from '../api/endpoints';
import { decodeDetections, encodeDetections } from '../api/detectionBlob';

export interface News {
  /** Of which clip; null for all. */
  readonly clipId: string | null;
  /** Only more of the same has come in. */
  readonly isMore: boolean;
}

const channel =
  typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('sinew-tracking');
const listeners = new Set<(news: News) => void>();
channel?.addEventListener('message', ({ data }: MessageEvent<News>) => hear(data));

function hear(news: News): void {
  for (const listener of listeners) listener(news);
}

/** Tell this tab and all others. */
export function tell(clipId: string | null, isMore = false): void {
  const news: News = { clipId, isMore };
  hear(news);
  channel?.postMessage(news);
}

/** @returns how to stop listening */
export function onNews(listener: (news: News) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export const openJobs = () => ask(OPEN_JOBS, []);

export const jobOf = (clipId: string) => ask(JOB, [clipId]);

/** @throws Problem */
export async function changeJob(clipId: string, request: JobRequest): Promise<void> {
  await ask(CHANGE_JOB, [clipId], request);
  tell(clipId);
}

/** Give it up and forget what was seen. */
export async function drop(clipId: string): Promise<void> {
  await ask(DROP_JOB, [clipId]);
  tell(clipId);
}

const detectionsAt = (clipId: string) => `/api/clips/${encodeURIComponent(clipId)}/detections`;

export async function detectionsOf(clipId: string): Promise<PoseDetection[]> {
  const response = await askBytes(detectionsAt(clipId));
  return decodeDetections(new Uint8Array(await response.arrayBuffer()));
}

/** What going through the film has told, if that has been done. */
export const surveyOf = (clipId: string) => ask(SURVEY, [clipId]);

/** What the worn bands have told, if they have been read. */
export const bandsOf = (clipId: string) => ask(BANDS_READ, [clipId]);

export const keepBands = (clipId: string, bands: KeptBands) => ask(KEEP_BANDS, [clipId], bands);

export async function keepDetections(
  clipId: string,
  detections: readonly PoseDetection[],
): Promise<void> {
  await askBytes(detectionsAt(clipId), { method: 'POST', body: encodeDetections(detections) });
}
