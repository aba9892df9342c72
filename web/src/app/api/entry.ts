/** What the pages share by which people come in. */
import { Problem } from '@sinew/core/foundation/problem/problem';
import { cookieFor, type CookieKind } from '@/data/access/cookies';
import type { Begun } from '@/data/access/signIns';
import { RECOVERY_POLICY } from '@/securityHeaders';
import { originOf } from './ownHost';

export const asPage = (html: string, status = 200): Response =>
  new Response(html, {
    status,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': RECOVERY_POLICY,
      'cache-control': 'no-store',
    },
  });

/** Off to a page of ours, with what the browser is to keep. */
export function comeIn(request: Request, to: string, kind: CookieKind, begun: Begun): Response {
  return goTo(request, to, [cookieFor(request.headers, kind, begun.token, begun.lasts)]);
}

export function goTo(request: Request, to: string, cookies: readonly string[]): Response {
  const headers = new Headers({ location: originOf(request) + to, 'cache-control': 'no-store' });
  for (const cookie of cookies) headers.append('set-cookie', cookie);
  return new Response(null, { status: 303, headers });
}

/** An address within Sinew, else the Floor: nobody is sent elsewhere by a link that looks like ours. */
export function within(to: unknown): string {
  if (typeof to !== 'string' || !to.startsWith('/')) return '/';
  const base = 'http://sinew.invalid';
  try {
    const url = new URL(to, base);
    return url.origin === base ? url.pathname + url.search : '/';
  } catch {
    return '/';
  }
}

/** The status and the words of a try that failed. @throws what is no problem of theirs */
export function toldOf(error: unknown): { readonly status: number; readonly message: string } {
  if (!(error instanceof Problem)) throw error;
  return { status: error.code === 'busy' ? 429 : 403, message: error.message };
}

const SYSTEMS = [
  [/iphone/i, 'iPhone'],
  [/ipad/i, 'iPad'],
  [/android/i, 'Android'],
  [/windows/i, 'Windows'],
  [/mac os|macintosh/i, 'Mac'],
  [/linux|cros/i, 'Linux'],
] as const;
const BROWSERS = [
  [/edg/i, 'Edge'],
  [/firefox|fxios/i, 'Firefox'],
  [/chrom|crios/i, 'Chrome'],
  [/safari/i, 'Safari'],
] as const;

/** What a browser says of itself, as short as it can be told apart: "Android, Chrome". */
export function deviceOf(headers: Headers): string {
  const said = headers.get('user-agent') ?? '';
  const first = (among: readonly (readonly [RegExp, string])[]) =>
    among.find(([pattern]) => pattern.test(said))?.[1];
  return [first(SYSTEMS), first(BROWSERS)].filter(Boolean).join(', ') || 'unknown device';
}
