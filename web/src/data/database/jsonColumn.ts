/** The one way in which JSON goes into a column and comes out of it. */
import type { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';

export interface JsonColumn<T> {
  /** @throws Problem `unreadable` when it is no longer what this column holds */
  read(text: string): T;
  /** The same of a column that may be empty. */
  readOr<Other>(text: string | null, otherwise: Other): T | Other;
  write(value: T): string;
}

/** @param what is kept in it, as in "the marks of a strike" */
export function jsonColumn<T>(what: string, schema: z.ZodType<T>): JsonColumn<T> {
  const read = (text: string): T => {
    const parsed = schema.safeParse(parsedJson(text));
    if (parsed.success) return parsed.data;
    throw new Problem(
      'unreadable',
      {
        happened: `What is kept of ${what} cannot be read.`,
        safe: 'Nothing was changed.',
        todo: 'Save a support file under Gym; a backup from before can be gone back to there.',
      },
      { cause: parsed.error },
    );
  };
  return {
    read,
    readOr: (text, otherwise) => (text === null ? otherwise : read(text)),
    write: (value) => JSON.stringify(value),
  };
}

function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
