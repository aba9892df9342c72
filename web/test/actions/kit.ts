/**
 * Server actions as a page calls them, on an empty gym with one student. Beside it a test file mocks
 * `next/cache` and `measureLater`, which have no server here.
 */
import { expect, vi } from 'vitest';
import { revalidatePath } from 'next/cache';

/** Pages that show it are made anew, or are left alone. */
export const isShown = () => vi.mocked(revalidatePath).mock.calls.length > 0;

/** Ours: a whole sentence, and nothing of a validator’s. */
export function expectSentence(said: unknown): void {
  expect(said).toMatch(/^[A-Z“][^<>]*[.?]$/);
  expect(said).not.toMatch(/\b(expected|received|undefined|NaN|Invalid|Too (small|big))\b/);
}

export function form(fields: Record<string, string>): FormData {
  const data = new FormData();
  for (const [key, value] of Object.entries(fields)) data.set(key, value);
  return data;
}
