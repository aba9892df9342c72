/**
 * The one way in which JSON goes into a column and comes out of it. What cannot be read (any more) takes no
 * page down: it counts as nothing said, stays where it is, and is told of under Gym (`unreadable.ts`).
 */
import type { z } from 'zod';
import { logUnreadable } from '../log/log';

export interface JsonColumn<T> {
  /** What is kept in it, as in "the marks of a strike". */
  readonly what: string;
  /** Null where nothing is kept, or nothing that can be read. */
  read(text: string | null): T | null;
  readOr<Other>(text: string | null, otherwise: Other): T | Other;
  isReadable(text: string | null): boolean;
  write(value: T): string;
  /**
   * What is to stand in the column for a value that takes the place of another text: the text itself where
   * it cannot be read and nothing new was said, so that nobody loses it by saving something else.
   */
  over(text: string | null, value: T | null): string | null;
}

export function jsonColumn<T>(what: string, schema: z.ZodType<T>): JsonColumn<T> {
  const parsed = (text: string) => schema.safeParse(parsedJson(text));
  const isReadable = (text: string | null) => text === null || parsed(text).success;
  const readOr = <Other>(text: string | null, otherwise: Other): T | Other => {
    if (text === null) return otherwise;
    const found = parsed(text);
    if (found.success) return found.data;
    logUnreadable(what);
    return otherwise;
  };
  const write = (value: T) => JSON.stringify(value);
  return {
    what,
    isReadable,
    readOr,
    read: (text) => readOr(text, null),
    write,
    over: (text, value) => {
      if (isNothing(value) && !isReadable(text)) return text;
      return value === null ? null : write(value);
    },
  };
}

const isNothing = (value: unknown) =>
  value === null || (typeof value === 'object' && Object.keys(value).length === 0);

function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
