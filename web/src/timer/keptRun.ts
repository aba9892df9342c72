/** The session that is running, kept by the browser: the clock goes on while the page is closed. */
import { z } from 'zod';
import { sessionSchema } from '@sinew/core/train/work/session';

const keptSchema = z.object({
  /** Of the logs it will become, so that they are kept once however often they are sent. */
  id: z.string(),
  session: sessionSchema,
  run: z.object({
    index: z.number().int().nonnegative(),
    since: z.number(),
    pausedAt: z.number().nullable(),
  }),
  /** When it was begun, ms; missing in one that an older Sinew began. */
  begun: z.number().optional(),
  /** What is called, how often, and in which order. */
  combinations: z.array(z.string()),
  pace: z.number(),
  seed: z.number(),
  isSpoken: z.boolean(),
  /** Whose work it is. */
  students: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      /** Parts of the session that are not for them, and why. */
      leaves: z.array(z.object({ block: z.string(), why: z.string() })).default([]),
    }),
  ),
});

export type KeptRun = z.infer<typeof keptSchema>;

const KEY = 'sinew-run';
const listeners = new Set<() => void>();

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

let last: { readonly text: string | null; readonly kept: KeptRun | null } = {
  text: null,
  kept: null,
};

/** The same value as long as nothing changes; null when nothing runs. */
export function keptRun(): KeptRun | null {
  const text = localStorage.getItem(KEY);
  if (text !== last.text) last = { text, kept: text === null ? null : parsed(text) };
  return last.kept;
}

function parsed(text: string): KeptRun | null {
  try {
    return keptSchema.parse(JSON.parse(text));
  } catch {
    // Left by another version: a session is soon started anew.
    return null;
  }
}

export function keepRun(kept: KeptRun | null): void {
  if (kept) localStorage.setItem(KEY, JSON.stringify(kept));
  else localStorage.removeItem(KEY);
  for (const listener of listeners) listener();
}
