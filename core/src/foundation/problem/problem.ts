/**
 * The one way in which something that went wrong is told: what happened, what is safe, what to do. The
 * code is for programs and the log; the sentences are for the coach, and hold no name of a person.
 */
import { z } from 'zod';

export const PROBLEM_CODES = [
  /** What was sent cannot be understood. */
  'not-understood',
  /** It was understood and cannot be done. */
  'refused',
  /** What it is about is not there (any more). */
  'gone',
  /** Somebody else has changed it meanwhile. */
  'conflict',
  /** It came from a page that is not Sinew's own. */
  'foreign',
  /** The gym's data cannot be reached. */
  'no-database',
  /** There is no room for it. */
  'disk-full',
  /** Another program has it just now; the same again in a moment may work. */
  'busy',
  /** What is kept cannot be read. */
  'unreadable',
  /** No answer came. */
  'no-answer',
  /** A fault of Sinew's own. */
  'unexpected',
] as const;
export type ProblemCode = (typeof PROBLEM_CODES)[number];

export interface ProblemText {
  /** What happened, a sentence. */
  readonly happened: string;
  /** What is safe: a sentence, empty where nothing was at stake. */
  readonly safe?: string;
  /** What to do, a sentence; empty where there is nothing. */
  readonly todo?: string;
}

export class Problem extends Error {
  readonly happened: string;
  readonly safe: string;
  readonly todo: string;

  constructor(
    readonly code: ProblemCode,
    { happened, safe = '', todo = '' }: ProblemText,
    options?: ErrorOptions,
  ) {
    super([happened, safe, todo].filter(Boolean).join(' '), options);
    this.name = 'Problem';
    this.happened = happened;
    this.safe = safe;
    this.todo = todo;
  }
}

/** What was asked for is understood and cannot be done. */
export const refused = (happened: string, todo = ''): Problem =>
  new Problem('refused', { happened, todo });

/** A problem on its way from the server to a page. */
/** @returns what a problem of this work says, or null when it was done; throws anything else */
export async function saidBy(work: Promise<unknown>): Promise<string | null> {
  try {
    await work;
    return null;
  } catch (error) {
    if (error instanceof Problem) return error.message;
    throw error;
  }
}

export const problemSchema = z.object({
  code: z.enum(PROBLEM_CODES),
  message: z.string(),
  happened: z.string(),
  safe: z.string(),
  todo: z.string(),
});

export function problemOut(problem: Problem): z.infer<typeof problemSchema> {
  const { code, message, happened, safe, todo } = problem;
  return { code, message, happened, safe, todo };
}

/**
 * The first thing that a validator finds wrong, as a sentence to the coach. What a schema says in its
 * own words is taken; a validator's own message ("expected string to have …") never is.
 *
 * @param names of fields, as a screen calls them
 */
export function firstWrong(
  error: z.ZodError,
  names: Readonly<Record<string, string>> = {},
): string {
  const issue = error.issues[0];
  return issue ? wrongWith(issue, names) : 'Something that was sent does not fit.';
}

/** What a validator finds wrong with one field, likewise. */
export function wrongWith(
  issue: z.core.$ZodIssue,
  names: Readonly<Record<string, string>> = {},
): string {
  const key = issue.path.map(String).join('.');
  const field = names[key] ?? names[String(issue.path[0] ?? '')];
  const subject = field ?? (key === '' ? 'What was sent' : `“${key}”`);
  if (isOwn(issue.message)) {
    return /^\p{Ll}/u.test(issue.message) ? `${subject} ${issue.message}.` : issue.message;
  }
  switch (issue.code) {
    case 'too_big':
      return issue.origin === 'string'
        ? `${subject} is too long: ${issue.maximum} letters at most.`
        : `${subject} is too large: ${issue.maximum} at most.`;
    case 'too_small':
      return issue.origin === 'string'
        ? `${subject} is missing.`
        : `${subject} is too small: ${issue.minimum} at least.`;
    case 'invalid_value':
      return `${subject} is none of the choices.`;
    case 'unrecognized_keys':
      return `${subject} has ${issue.keys.map((one) => `“${one}”`).join(', ')}, and nobody knows what that is.`;
    case 'invalid_type':
      return `${subject} is missing, or of another kind.`;
    default:
      return `${subject} does not fit.`;
  }
}

/** A validator's own messages begin with these words; ours are a sentence, or what follows its subject. */
function isOwn(message: string): boolean {
  return !/^(Invalid|Too (big|small)|Expected|Unrecognized|Required)\b/.test(message);
}
