/** Why the gym's database cannot be opened, for a page that opens none. */
import { Problem } from '@sinew/core/foundation/problem/problem';

export type ProblemKind =
  'damaged' | 'newer' | 'not brought up to date' | 'in use' | 'out of reach';

export class DatabaseProblem extends Problem {
  constructor(
    readonly kind: ProblemKind,
    /** The reason, as the program that failed gave it. */
    readonly reason: string,
    options?: ErrorOptions,
  ) {
    super(
      'no-database',
      {
        happened: `The gym’s database cannot be opened: it is ${kind}.`,
        safe: 'Nothing was changed.',
        todo: 'Open Sinew’s first page, which says why and what to do.',
      },
      options,
    );
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
