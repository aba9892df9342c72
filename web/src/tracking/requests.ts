/** What pages ask of the server about body tracking, and how tabs tell each other. */
import { z } from 'zod';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { surveySchema, type Survey } from '../video/survey';
import { jobSchema, type Job, type JobRequest } from './job';
import { decodeDetections, encodeDetections } from './detectionBlob';

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

/** @throws Error with a message for the coach */
async function answered(response: Promise<Response>): Promise<Response> {
  const answer = await response.catch(() => null);
  if (!answer) throw new Error('Sinew does not answer; what was tracked so far is kept.');
  if (answer.ok) return answer;
  const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
  throw new Error(message ?? 'Sinew could not keep what was tracked.');
}

export async function openJobs(): Promise<Job[]> {
  const response = await answered(fetch('/api/tracking'));
  return z.array(jobSchema).parse(await response.json());
}

export async function jobOf(clipId: string): Promise<Job | null> {
  const response = await answered(fetch(`/api/clips/${clipId}/tracking`));
  return jobSchema.nullable().parse(await response.json());
}

/** @throws Error with a message for the coach */
export async function ask(clipId: string, request: JobRequest): Promise<void> {
  await answered(
    fetch(`/api/clips/${clipId}/tracking`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(request),
    }),
  );
  tell(clipId);
}

/** Give it up and forget what was seen. */
export async function drop(clipId: string): Promise<void> {
  await answered(fetch(`/api/clips/${clipId}/tracking`, { method: 'DELETE' }));
  tell(clipId);
}

export async function detectionsOf(clipId: string): Promise<PoseDetection[]> {
  const response = await answered(fetch(`/api/clips/${clipId}/detections`));
  return decodeDetections(new Uint8Array(await response.arrayBuffer()));
}

/** What going through the film has told, if that has been done. */
export async function surveyOf(clipId: string): Promise<Survey | null> {
  const kept = await answered(fetch(`/api/clips/${clipId}/survey`));
  return surveySchema.nullable().parse(await kept.json());
}

export async function keepDetections(
  clipId: string,
  detections: readonly PoseDetection[],
): Promise<void> {
  await answered(
    fetch(`/api/clips/${clipId}/detections`, {
      method: 'POST',
      body: encodeDetections(detections),
    }),
  );
}
