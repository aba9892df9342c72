import { DatabaseProblem, NO_DATABASE } from '@/data/database/databaseProblem';

/**
 * Sinew serves one machine. A page of another site that the coach happens to have open must not be
 * able to read or write here, not even by a name that has been pointed at this machine.
 */
const OWN_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

export function isOwnHost(request: Request): boolean {
  return OWN_HOSTS.has((request.headers.get('host') ?? '').replace(/:\d+$/, ''));
}

/** A route handler that is only reached by Sinew's own pages. */
export function ownPagesOnly<Context>(
  handle: (request: Request, context: Context) => Promise<Response>,
): (request: Request, context: Context) => Promise<Response> {
  return async (request, context) => {
    const refused = refuseForeign(request);
    if (refused) return refused;
    try {
      return await handle(request, context);
    } catch (error) {
      if (!(error instanceof DatabaseProblem)) throw error;
      return Response.json({ message: NO_DATABASE }, { status: 503 });
    }
  };
}

/** A refusal when the request does not come from Sinew's own pages, else null. */
export function refuseForeign(request: Request): Response | null {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const isOwnOrigin = origin === null || origin === `http://${host}`;
  const isOwnSite = site === null || site === 'same-origin' || site === 'none';
  if (isOwnHost(request) && isOwnOrigin && isOwnSite) return null;
  return Response.json({ message: 'Sinew answers only its own pages.' }, { status: 403 });
}
