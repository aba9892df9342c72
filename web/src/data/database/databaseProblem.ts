/** Why the gym's database cannot be opened, for a page that opens none. */

export type ProblemKind = 'damaged' | 'newer' | 'not brought up to date' | 'out of reach';

export class DatabaseProblem extends Error {
  constructor(
    readonly kind: ProblemKind,
    /** The reason, as the program that failed gave it. */
    readonly reason: string,
    options?: ErrorOptions,
  ) {
    super(`The gym’s database is ${kind}: ${reason}`, options);
  }
}

/** What SQLite's own check says of a row that should not be there: no reason to shut the gym. */
const HARMLESS = /^(ok$|CHECK constraint failed|NULL value in)/;

/** @returns the first damage among the lines of SQLite's check, or null */
export function damageAmong(lines: readonly string[]): string | null {
  return lines.find((line) => !HARMLESS.test(line)) ?? null;
}

/** @returns the problem behind any error of opening a database */
export function asProblem(error: unknown): DatabaseProblem {
  if (error instanceof DatabaseProblem) return error;
  const { code, message } = error as { code?: string; message?: string };
  const isDamaged = code === 'SQLITE_NOTADB' || code?.startsWith('SQLITE_CORRUPT') === true;
  return new DatabaseProblem(isDamaged ? 'damaged' : 'out of reach', message ?? String(error), {
    cause: error,
  });
}

/** What is told instead of an answer by a route that needs the database. */
export const NO_DATABASE =
  'The gym’s database cannot be opened. Nothing was changed; open Sinew’s first page, which says why and what to do.';
