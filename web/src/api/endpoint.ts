/** One question that a page may ask the server: where, what is sent, what comes back. */
import type { z } from 'zod';

export interface Endpoint<Params extends readonly unknown[], Sent, Answer> {
  readonly method: 'GET' | 'PUT' | 'POST' | 'DELETE';
  readonly path: (...params: Params) => string;
  /** Null where nothing is sent. */
  readonly sends: z.ZodType<Sent> | null;
  readonly answers: z.ZodType<Answer>;
}

export function endpoint<Params extends readonly unknown[], Sent, Answer>(
  one: Endpoint<Params, Sent, Answer>,
): Endpoint<Params, Sent, Answer> {
  return one;
}
