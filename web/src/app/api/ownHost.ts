/** Names under which this machine answers itself. */
const OWN_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Sinew serves one machine. A page of another site that the coach happens to have open must not be
 * able to read or write here, not even by a name that has been pointed at this machine.
 */
export function isOwnHost(request: Request): boolean {
  return OWN_HOSTS.has((request.headers.get('host') ?? '').replace(/:\d+$/, ''));
}
