/** By what this machine is reached in the gym's own network. */
import { hostname, networkInterfaces } from 'node:os';
import { BlockList, isIPv6 } from 'node:net';

/** Numbers of this machine, those that phones are most likely to reach first. */
export function ownNumbers(interfaces = networkInterfaces()): string[] {
  const all = Object.values(interfaces)
    .flatMap((list) => list ?? [])
    .filter(({ internal, address }) => !internal && isNearby(address))
    // What begins with fe80 is asked for together with the card it comes through; browsers cannot say it.
    .filter(({ address }) => !address.startsWith('fe80'));
  return all.sort((a, b) => rank(a.address) - rank(b.address)).map(({ address }) => address);
}

const rank = (address: string) =>
  isIPv6(address) ? 3 : address.startsWith('192.168.') ? 0 : address.startsWith('10.') ? 1 : 2;

/** Names of this machine. */
export function ownNames(): string[] {
  const name = hostname().toLowerCase();
  const isName = /^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/.test(name);
  return ['localhost', ...(isName ? [name, ...(name.includes('.') ? [] : [`${name}.local`])] : [])];
}

/** As it stands in an address. */
export const inAddress = (host: string): string => (isIPv6(host) ? `[${host}]` : host);

/**
 * Networks that are nobody's but their own. Source: RFC 1918 (10/8, 172.16/12, 192.168/16), RFC 3927
 * (169.254/16), RFC 4193 (fc00::/7), RFC 4291 (loopback, fe80::/10).
 */
const NEARBY = new BlockList();
for (const [net, bits] of [
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['169.254.0.0', 16],
  ['127.0.0.0', 8],
] as const)
  NEARBY.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['fc00::', 7],
  ['fe80::', 10],
] as const)
  NEARBY.addSubnet(net, bits, 'ipv6');
NEARBY.addAddress('::1', 'ipv6');

/** An address as a socket tells it, without the form in which IPv6 writes IPv4. */
export const plainAddress = (address: string): string =>
  address.replace(/^::ffff:(?=\d+\.\d+\.\d+\.\d+$)/i, '').replace(/%.*$/, '');

/** Whether an address is of a network like the gym's own, and not of the internet. */
export function isNearby(address: string): boolean {
  const plain = plainAddress(address);
  return NEARBY.check(plain, isIPv6(plain) ? 'ipv6' : 'ipv4');
}
