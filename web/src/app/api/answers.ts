/** How every route answers: own pages only, a problem as a problem, and nothing unlogged. */
import type { z } from 'zod';
import {
  Problem,
  problemOut,
  type ProblemCode,
  type ProblemText,
} from '@sinew/core/foundation/problem/problem';
import { logFailed, logRefused } from '@/data/log/log';
import { onlyFor, reaches, type Asker, type Role } from '@/data/access/roles';
import { whoAsks } from '@/data/access/whoAsks';
import { bringsKey, NO_KEY } from './key';
import { isOwnHost, originOf } from './ownHost';

const STATUS: Record<ProblemCode, number> = {
  'not-understood': 400,
  foreign: 403,
  gone: 404,
  conflict: 409,
  refused: 422,
  unreadable: 500,
  unexpected: 500,
  'disk-full': 507,
  'no-answer': 502,
  busy: 503,
  'no-database': 503,
};

type Handler<Context> = (request: Request, context: Context) => Promise<Response>;
type AskedHandler<Context> = (
  request: Request,
  context: Context,
  asker: Asker,
) => Promise<Response>;

/**
 * A route handler that is only reached by Sinew's own pages and for those who may, and whose problems are
 * told and logged.
 *
 * @param least the role that may ask this; an assistant only where it says so
 */
export function ownPagesOnly<Context>(
  handle: AskedHandler<Context>,
  least: Role = 'coach',
): Handler<Context> {
  return async (request, context) => {
    try {
      const foreign = foreignIn(request);
      if (foreign) throw foreign;
      return await handle(request, context, await askerOf(request, least));
    } catch (error) {
      return refusal(request, error);
    }
  };
}

/** A refusal when the request does not come from Sinew's own pages, else null. */
export function refuseForeign(request: Request): Response | null {
  const foreign = foreignIn(request);
  return foreign && refusal(request, foreign);
}

async function askerOf(request: Request, least: Role): Promise<Asker> {
  const asker = await whoAsks(request.headers);
  if (asker && reaches(asker.role, least)) return asker;
  throw asker ? new NotAllowed(least) : new NotSignedIn();
}

class NotSignedIn extends Problem {
  readonly status = 401;
  constructor() {
    super('foreign', {
      happened: 'Nobody is signed in here.',
      safe: 'Nothing was changed.',
      todo: 'Reload the page and sign in.',
    });
  }
}

class NotAllowed extends Problem {
  readonly status = 403;
  constructor(least: Role) {
    super('foreign', onlyFor(least));
  }
}

function foreignIn(request: Request): Problem | null {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const isOwnOrigin = origin === null || origin === originOf(request);
  const isOwnSite = site === null || site === 'same-origin' || site === 'none';
  if (isOwnHost(request) && isOwnOrigin && isOwnSite) {
    return bringsKey(request) ? null : new Problem('foreign', { happened: NO_KEY });
  }
  return new Problem('foreign', { happened: 'Sinew answers only its own pages.' });
}

function refusal(request: Request, error: unknown): Response {
  const problem = error instanceof Problem ? error : unexpected(error);
  const { status = STATUS[problem.code] } = problem as { readonly status?: number };
  if (status < 500) logRefused(request, status, problem.code);
  else logFailed(request, problem.cause ?? problem);
  return Response.json(problemOut(problem), { status });
}

function unexpected(error: unknown): Problem {
  const code = String((error as { code?: unknown } | null)?.code ?? '');
  const [kind, text] = OF_THE_DISK.find(([, , codes]) => codes.test(code)) ?? INSIDE;
  return new Problem(kind, text, { cause: error });
}

const INSIDE: readonly [ProblemCode, ProblemText] = [
  'unexpected',
  {
    happened: 'This went wrong inside Sinew.',
    safe: 'What was kept before is safe.',
    todo: 'Try again. If it stays, save a support file under Gym.',
  },
];

/** What the system and SQLite say when it is the disk's fault. */
const OF_THE_DISK: readonly (readonly [ProblemCode, ProblemText, RegExp])[] = [
  [
    'disk-full',
    {
      happened: 'The disk is full.',
      safe: 'What was kept before is safe; nothing was half kept.',
      todo: 'Free some space and try again.',
    },
    /^(ENOSPC|EDQUOT|SQLITE_FULL)$/,
  ],
  [
    'unexpected',
    {
      happened: 'The disk does not take what Sinew writes.',
      safe: 'What was kept before is safe; nothing was half kept.',
      todo: 'Look whether it is there, whole, and yours to write on, and try again.',
    },
    /^(EIO|EROFS|EACCES|EPERM|SQLITE_(IOERR|READONLY|CANTOPEN).*)$/,
  ],
];

/**
 * What was sent, checked.
 *
 * @throws Problem `not-understood` with these sentences
 */
export async function bodyOf<Sent>(
  request: Request,
  schema: z.ZodType<Sent> | null,
  otherwise: ProblemText,
): Promise<Sent> {
  const parsed = schema?.safeParse(await request.json().catch(() => undefined));
  if (parsed?.success) return parsed.data;
  throw new Problem('not-understood', otherwise);
}

/** @throws Problem `gone` where there is none */
export function there<T>(found: T | null | undefined | false, otherwise: ProblemText): T {
  if (found) return found;
  throw new Problem('gone', otherwise);
}

export const CLIP_GONE: ProblemText = {
  happened: 'This clip has been deleted.',
  todo: 'Under Gym it can be brought back for thirty days.',
};

/** JSON that no cache may keep. */
export const fresh = (answer: unknown) =>
  Response.json(answer, { headers: { 'cache-control': 'no-store' } });

export const done = () => Response.json({});
