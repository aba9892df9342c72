import { NextResponse, type NextRequest } from 'next/server';
import { isOwnHost } from '@/app/api/ownHost';
import { databaseProblem } from '@/data/database/database';
import { pagePolicy } from '@/securityHeaders';

/**
 * Pages answer only to this machine's own names; the API routes check for themselves. When the
 * database cannot be opened, every page gives way to the one that needs none.
 */
export async function proxy(request: NextRequest): Promise<Response> {
  if (!isOwnHost(request)) {
    return new Response('Sinew answers only on this machine.', { status: 403 });
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

// Requests that pass through here are buffered, so the transfer of clips must not.
export const config = {
  matcher: '/((?!api/|_next/static|_next/image|tracker/|.*\\.(?:svg|mp4|css)$).*)',
};
