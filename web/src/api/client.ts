/** Asks the server, and believes nothing it says before it has been checked. */
import { Problem, problemSchema } from '@sinew/core/foundation/problem/problem';
import type { Endpoint } from './endpoint';

interface Options {
  readonly signal?: AbortSignal;
  /** The question outlives a page that is being closed; browsers allow this up to 64 KiB. */
  readonly keepalive?: boolean;
}

/**
 * @throws Problem: the server's own, or `no-answer` where none came or it makes no sense;
 *   `AbortError` when broken off
 */
export async function ask<Params extends readonly unknown[], Sent, Answer>(
  endpoint: Endpoint<Params, Sent, Answer>,
  params: Params,
  ...[sent, options = {}]: [sent?: Sent, options?: Options]
): Promise<Answer> {
  const { method, path, sends, answers } = endpoint;
  const body = sends ? JSON.stringify(sends.parse(sent)) : undefined;
  const response = await answered(path(...params), {
    method,
    ...(body !== undefined && { body, headers: { 'content-type': 'application/json' } }),
    ...(options.signal && { signal: options.signal }),
    keepalive: options.keepalive === true && (body?.length ?? 0) < 60_000,
  });
  const answer = answers.safeParse(await response.json().catch(() => undefined));
  if (answer.success) return answer.data;
  throw new Problem('no-answer', {
    happened: 'Sinew’s answer makes no sense to this page.',
    safe: 'Nothing was changed by it.',
    todo: 'Reload the page; it may be older than the server.',
  });
}

/**
 * What is no JSON: films, detections, whole gyms.
 *
 * @throws Problem, as above
 */
export async function askBytes(
  address: string,
  init: { readonly method: 'GET' | 'PUT' | 'POST'; readonly body?: BodyInit } = { method: 'GET' },
): Promise<Response> {
  return answered(address, init);
}

async function answered(address: string, init: RequestInit): Promise<Response> {
  const response = await fetch(address, init).catch((error: unknown) => {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new Problem('no-answer', {
      happened: 'Sinew does not answer.',
      safe: 'What was kept before is safe.',
      todo: 'Is it still running? Try again.',
    });
  });
  if (response.ok) return response;
  throw problemIn(await response.json().catch(() => null));
}

/** The problem that a refusal tells; one of ours where it tells none. */
export function problemIn(json: unknown): Problem {
  const told = problemSchema.safeParse(json);
  return told.success
    ? new Problem(told.data.code, told.data)
    : new Problem('unexpected', {
        happened: 'Sinew could not do it.',
        safe: 'What was kept before is safe.',
        todo: 'Try again.',
      });
}

/** A problem's sentences, or those of any other error, for a page to show. */
export function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
