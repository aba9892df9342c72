import { NextResponse, type NextRequest } from 'next/server';
import { bringsKey, keyIn } from '@/app/api/key';
import { isOwnHost } from '@/app/api/ownHost';
import { databaseProblem } from '@/data/database/database';
import { lockedPage } from '@/screens/recovery/lockedPage';
import { pagePolicy, RECOVERY_POLICY } from '@/securityHeaders';

/**
 * Pages answer only to this machine's own names, and to who brings the key where there is one; the API routes check for themselves. When the
 * database cannot be opened, every page gives way to the one that needs none.
 */
export async function proxy(request: NextRequest): Promise<Response> {
  if (!isText(request.nextUrl.pathname)) {
    return new Response('There is no such address.', { status: 404 });
  }
  if (!isOwnHost(request)) {
    return new Response('Sinew answers only on this machine.', { status: 403 });
  }
  const brought = keyIn(request.nextUrl);
  if (brought) {
    return new Response(null, {
      status: 303,
      headers: {
        location: `http://${request.headers.get('host')}${brought.to}`,
        'set-cookie': brought.cookie,
        'cache-control': 'no-store',
      },
    });
  }
  if (!bringsKey(request)) {
    return new Response(lockedPage(), {
      status: 401,
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': RECOVERY_POLICY,
        'cache-control': 'no-store',
      },
    });
  }
  // It says by itself what it may do, and asks for no database.
  if (request.nextUrl.pathname.startsWith('/recovery')) return NextResponse.next();
  const problem = await databaseProblem();
  if (problem) {
    if (request.method !== 'GET') return new Response(problem.message, { status: 503 });
    return NextResponse.rewrite(new URL('/recovery', request.url));
  }
  const nonce = btoa(crypto.randomUUID());
  const policy = pagePolicy(nonce);
  const headers = new Headers(request.headers);
  // Next reads the nonce off the policy and gives it to its own scripts.
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

/** Whether an address can be read at all: "%ff" stands for no letter. */
function isText(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

// Requests that pass through here are buffered, so the transfer of clips must not: of the API only
// addresses with a sign that none of its own has.
export const config = {
  matcher: [
    '/((?!api/|_next/static|_next/image|tracker/|.*\\.(?:svg|mp4|css)$).*)',
    '/api/(.*%.*)',
  ],
};
