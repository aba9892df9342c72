/**
 * Other people may use the same machine. Where the server was started with a key, only a browser that
 * was opened once by the address with the key in it is answered; it keeps the key as a cookie.
 */
import { createHash, timingSafeEqual } from 'node:crypto';
import { isByDoor } from '@/data/door/byDoor';

/** Seconds: the coach opens the gym by a bookmark from then on. */
const A_YEAR = 365 * 86_400;

const hashOf = (text: string) => createHash('sha256').update(text).digest();
/** Browsers keep cookies by host and not by port: two gyms on one machine do not take each other's place. */
const nameFor = (key: string) => `sinew-${hashOf(key).toString('hex').slice(0, 8)}`;

const isSame = (one: string, other: string) => timingSafeEqual(hashOf(one), hashOf(other));

/** Whether the request brings the key, where one is asked for: not of those who sign in through the door. */
export function bringsKey(request: Request): boolean {
  const key = process.env.SINEW_KEY;
  if (!key || isByDoor(request.headers)) return true;
  const name = nameFor(key);
  const cookies = (request.headers.get('cookie') ?? '').split(/;\s*/);
  return cookies.some(
    (one) => one.startsWith(`${name}=`) && isSame(one.slice(name.length + 1), key),
  );
}

/** Where an address brings the key: the same address without it, and the cookie that keeps it; else null. */
export function keyIn(url: URL): { readonly to: string; readonly cookie: string } | null {
  const key = process.env.SINEW_KEY;
  const brought = url.searchParams.get('key');
  if (!key || brought === null || !isSame(brought, key)) return null;
  const rest = new URLSearchParams(url.searchParams);
  rest.delete('key');
  return {
    to: `${url.pathname}${rest.size > 0 ? `?${rest}` : ''}`,
    cookie: `${nameFor(key)}=${key}; Path=/; Max-Age=${A_YEAR}; HttpOnly; SameSite=Strict`,
  };
}

export const NO_KEY = 'Open Sinew by the address that its terminal shows.';
