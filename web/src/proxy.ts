import { NextResponse, type NextRequest } from 'next/server';
import { bringsKey, keyIn } from '@/app/api/key';
import { isOwnHost, originOf } from '@/app/api/ownHost';
import { reaches, type Asker } from '@/data/access/roles';
import { whoAsks } from '@/data/access/whoAsks';
import { databaseProblem } from '@/data/database/database';
import { isByDoor } from '@/data/door/byDoor';
import { lockedPage } from '@/screens/recovery/lockedPage';
import { pagePolicy, RECOVERY_POLICY } from '@/securityHeaders';

/**
 * Pages, and what their forms do, answer only to this machine's own names, to who brings the key where there
 * is one, and to who is signed in where people sign in; the API routes check for themselves. When the
 * database cannot be opened, every page gives way to the one that needs none.
 */
export async function proxy(request: NextRequest): Promise<Response> {
  if (!isText(request.nextUrl.pathname)) {
    return new Response('There is no such address.', { status: 404 });
  }
  if (!isOwnHost(request)) {
    return new Response('Sinew answers only on this machine.', { status: 403 });
  }
  const isDoor = isByDoor(request.headers);
  const brought = isDoor ? null : keyIn(request.nextUrl);
  if (brought) {
    return new Response(null, {
      status: 303,
      headers: {
        location: originOf(request) + brought.to,
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
  const { pathname } = request.nextUrl;
  // They ask for themselves who it is.
  // What a page's form does goes by no address of theirs.
  const isForm = request.headers.has('next-action');
  if (!isForm && (isWayIn(pathname) || isLesson(pathname))) return NextResponse.next();
  const asker = await whoAsks(request.headers);
  if (!asker) return toSignIn(request);
  if (!maySee(asker, request)) return away(request, '/phone');
  // It says by itself what it may do, and asks for no database.
  if (pathname.startsWith('/recovery')) {
    return reaches(asker.role, 'owner')
      ? NextResponse.next()
      : new Response('Only the owner may do this.', { status: 403 });
  }
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

const isWayIn = (path: string) => /^\/(sign-in|sign-out|pair)$/.test(path);

/** Who has the address of a student's lesson reads it; it asks for itself whether it may still be shown. */
const isLesson = (path: string) => /^\/lesson\/[\w-]{43}(\/(picture|film|ticks))?$/.test(path);

/** A page of the phone is all that an assistant sees, and no form of a page is theirs to send. */
const maySee = ({ role }: Asker, { method, nextUrl }: NextRequest): boolean =>
  reaches(role, 'coach') ||
  ((method === 'GET' || method === 'HEAD') && /^\/phone(\/|$)/.test(nextUrl.pathname));

function toSignIn(request: NextRequest): Response {
  if (request.method !== 'GET') return new Response('Sign in first.', { status: 401 });
  const { pathname, search } = request.nextUrl;
  return away(request, `/sign-in?to=${encodeURIComponent(pathname + search)}`);
}

function away(request: NextRequest, to: string): Response {
  if (request.method !== 'GET') return new Response('Only a coach may do this.', { status: 403 });
  return new Response(null, {
    status: 303,
    headers: { location: originOf(request) + to, 'cache-control': 'no-store' },
  });
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
// addresses with a sign that none of its own has; of files only those that lie at the root. What a page's
// form does is asked for by a header, or by a form, and Next does it at any address, also at one that is none.
export const config = {
  matcher: [
    '/((?!api/|_next/static/|tracker/|[^/]+\\.(?:svg|mp4|css|js)$).*)',
    '/api/(.*%.*)',
    {
      source: '/(.*)',
      has: [{ type: 'header', key: 'next-action' }],
    },
    {
      source: '/(.*)',
      has: [{ type: 'header', key: 'content-type', value: '(.*)form-data(.*)' }],
    },
    {
      source: '/(.*)',
      has: [{ type: 'header', key: 'content-type', value: '(.*)urlencoded(.*)' }],
    },
  ],
};
