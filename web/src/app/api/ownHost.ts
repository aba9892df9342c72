import { isByDoor, isDoorHost } from '@/data/door/byDoor';

/** Names under which this machine answers itself. */
const OWN_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * A page of another site that the coach happens to have open must not be able to read or write here, not
 * even by a name that has been pointed at this machine.
 */
export function isOwnHost({ headers }: Request): boolean {
  const host = headers.get('host') ?? '';
  return isByDoor(headers) ? isDoorHost(host) : OWN_HOSTS.has(host.replace(/:\d+$/, ''));
}

/** Where a request came to, as browsers name it. */
export const originOf = ({ headers }: Request): string =>
  `${isByDoor(headers) ? 'https' : 'http'}://${headers.get('host') ?? ''}`;
