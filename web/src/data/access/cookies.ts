/** What a browser keeps of a sign-in. No script reads it, no other site's page brings it along. */
import { isByDoor } from '../door/byDoor';
import { hashOf } from './secrets';

export type CookieKind = 'passcode' | 'phone';

type Heads = Pick<Headers, 'get'>;

/**
 * Browsers keep cookies by host and not by port: two gyms on one machine do not take each other's place.
 * Over HTTPS only this very host may set it. Source: RFC 6265bis, section 4.1.3.2.
 */
export function cookieName(heads: Heads, kind: CookieKind): string {
  const gym = hashOf(process.env.SINEW_KEY ?? '').slice(0, 8);
  const name = `sinew-${kind === 'phone' ? 'phone' : 'in'}-${gym}`;
  return isByDoor(heads) ? `__Host-${name}` : name;
}

export function cookieOf(heads: Heads, kind: CookieKind): string | null {
  const name = `${cookieName(heads, kind)}=`;
  const one = (heads.get('cookie') ?? '').split(/;\s*/).find((text) => text.startsWith(name));
  const value = one?.slice(name.length);
  return value ? value : null;
}

/** @param lasts seconds; 0 takes it away */
export function cookieFor(heads: Heads, kind: CookieKind, token: string, lasts: number): string {
  const secure = isByDoor(heads) ? '; Secure' : '';
  return `${cookieName(heads, kind)}=${token}; Path=/; Max-Age=${Math.round(lasts)}; HttpOnly; SameSite=Strict${secure}`;
}
