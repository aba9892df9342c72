/**
 * Requests from the gym's network come through the door, which marks them. The mark is made anew each
 * time the server starts and never leaves this machine.
 */
import { randomBytes, timingSafeEqual } from 'node:crypto';

type Heads = Pick<Headers, 'get'>;

const shared = globalThis as { sinewDoorMark?: string; sinewDoorHosts?: ReadonlySet<string> };

export const doorMark = (): string =>
  (shared.sinewDoorMark ??= randomBytes(32).toString('base64url'));

/** Headers that the door sets; from anybody else it takes them away. */
export const MARK = 'x-sinew-door';
export const FROM = 'x-sinew-from';

export function isByDoor(headers: Heads): boolean {
  const mark = Buffer.from(headers.get(MARK) ?? '');
  const wanted = Buffer.from(doorMark());
  return mark.length === wanted.length && timingSafeEqual(mark, wanted);
}

/** The address on the network from which somebody asks; null at the machine itself. */
export const addressOf = (headers: Heads): string | null =>
  isByDoor(headers) ? headers.get(FROM) : null;

/** Names and ports under which the door answers; none while it is shut. */
export function answersTo(hosts: ReadonlySet<string>): void {
  shared.sinewDoorHosts = hosts;
}

export const isDoorHost = (host: string): boolean =>
  shared.sinewDoorHosts?.has(host.toLowerCase()) ?? false;
