/** What a form has sent, and what is wrong with it, by the names of its fields. */
import type { z } from 'zod';
import { wrongWith } from '@sinew/core/foundation/problem/problem';
import { inManner } from '@/manner/manner';

export function typed(form: FormData): Record<string, string> {
  return Object.fromEntries(
    [...form].flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])),
  );
}

/** The first thing wrong with a field is the one to mend. */
export function problems(error: z.ZodError): Record<string, string> {
  const found = error.issues.map(
    (issue) => [String(issue.path[0]), inManner(wrongWith(issue))] as const,
  );
  return Object.fromEntries(found.reverse());
}
