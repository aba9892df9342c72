import { NextResponse, type NextRequest } from 'next/server';
import { isOwnHost } from '@/app/api/local';

/** Pages answer only to this machine's own names; the API routes check for themselves. */
export function proxy(request: NextRequest): Response {
  return isOwnHost(request)
    ? NextResponse.next()
    : new Response('Sinew answers only on this machine.', { status: 403 });
}

// Requests that pass through here are buffered, so the transfer of clips must not.
export const config = { matcher: '/((?!api/|_next/static|_next/image).*)' };
