/** The door to the gym's network: what it passes on, what it takes away, by what it is known. */
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import { request } from 'node:https';
import { readdirSync, statSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { TLSSocket } from 'node:tls';
import { X509Certificate } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { accessDb, closeAccess } from '@/data/access/accessDb';
import { addPerson } from '@/data/access/people';
import { inAddress, isNearby, ownNumbers, plainAddress } from '@/data/door/addresses';
import { doorMark, isByDoor, isDoorHost } from '@/data/door/byDoor';
import { certificateFor } from '@/data/door/certificate';
import { doorNow, openDoor, shutDoor } from '@/data/door/door';

interface Seen {
  readonly method: string;
  readonly url: string;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}

let inside: Server;
let folder: string;
const seen: Seen[] = [];

beforeAll(async () => {
  folder = scratchFolder('door');
  process.env.SINEW_DATA = folder;
  inside = createServer((asked, answer) => {
    const parts: Buffer[] = [];
    asked.on('data', (part: Buffer) => parts.push(part));
    asked.on('end', () => {
      const { method = '', url = '', headers } = asked;
      seen.push({ method, url, headers, body: Buffer.concat(parts).toString() });
      answer.writeHead(207, { 'x-told': 'yes', 'set-cookie': ['a=1', 'b=2'] });
      answer.end('from inside');
    });
  });
  await new Promise<void>((resolve) => inside.listen(0, '127.0.0.1', resolve));
  process.env.SINEW_ADDRESS = `http://127.0.0.1:${(inside.address() as { port: number }).port}`;
});
afterAll(async () => {
  await shutDoor();
  await closeAccess();
  inside.close();
  delete process.env.SINEW_ADDRESS;
});

interface Answered {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
  readonly fingerprint: string;
}

function ask(
  port: number,
  path: string,
  {
    method = 'GET',
    headers = {},
    body = '',
  }: { method?: string; headers?: object; body?: string } = {},
): Promise<Answered> {
  return new Promise((resolve, reject) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        path,
        method,
        headers: { host: `127.0.0.1:${port}`, ...headers },
        rejectUnauthorized: false,
        agent: false,
      },
      (answer) => {
        const { fingerprint256 } = (answer.socket as TLSSocket).getPeerCertificate();
        let text = '';
        answer.on('data', (part) => (text += String(part)));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode!,
            headers: answer.headers,
            body: text,
            fingerprint: fingerprint256,
          }),
        );
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });
}

const portOf = (addresses: readonly string[]) => Number(new URL(addresses[0]!).port);

describe('the door', () => {
  it('opens for nobody before somebody owns the gym, and never in the demo', async () => {
    await expect(openDoor()).rejects.toThrow(/Nobody is the owner yet/);
    await addPerson(await accessDb(), { name: 'I', role: 'owner', passcode: 'harbour-42' });
    process.env.SINEW_DEMO = '1';
    await expect(openDoor()).rejects.toThrow(/demo stays on this machine/);
    delete process.env.SINEW_DEMO;
    expect(await doorNow()).toBeNull();
  });

  it('passes on what is asked and what is answered', async () => {
    const { addresses, fingerprint } = await openDoor();
    const port = portOf(addresses);
    const answer = await ask(port, '/a?b=c', { method: 'POST', body: 'Grüße' });
    expect(answer).toMatchObject({ status: 207, body: 'from inside', fingerprint });
    expect(answer.headers['x-told']).toBe('yes');
    expect(answer.headers['set-cookie']).toEqual(['a=1', 'b=2']);
    expect(seen.at(-1)).toMatchObject({ method: 'POST', url: '/a?b=c', body: 'Grüße' });
    expect(seen.at(-1)!.headers.host).toBe(`127.0.0.1:${port}`);
    expect(isDoorHost(`127.0.0.1:${port}`)).toBe(true);
    expect(isDoorHost(`127.0.0.1:${port + 1}`)).toBe(false);
    // Opened again, it is the same one.
    expect(await openDoor()).toEqual(await doorNow());
  });

  it('marks what comes through it, and takes away what claims to be marked', async () => {
    const port = portOf((await openDoor()).addresses);
    await ask(port, '/', {
      headers: {
        'x-sinew-door': 'forged',
        'X-Sinew-From': '127.0.0.1',
        'x-forwarded-for': '1.2.3.4',
        'x-forwarded-host': 'elsewhere.invalid',
        forwarded: 'host=elsewhere.invalid',
        'x-middleware-subrequest': 'src/proxy',
        connection: 'x-sinew-door',
        cookie: 'kept=1',
      },
    });
    const { headers } = seen.at(-1)!;
    const heads = { get: (name: string) => String(headers[name] ?? '') };
    expect(isByDoor(heads)).toBe(true);
    expect(headers['x-sinew-door']).toBe(doorMark());
    expect(headers['x-sinew-from']).toBe('127.0.0.1');
    expect(headers['x-forwarded-proto']).toBe('https');
    expect(headers.cookie).toBe('kept=1');
    for (const name of ['x-forwarded-for', 'x-forwarded-host', 'forwarded']) {
      expect(headers, name).not.toHaveProperty(name);
    }
    expect(headers).not.toHaveProperty('x-middleware-subrequest');
    expect(isByDoor({ get: () => 'forged' })).toBe(false);
    expect(isByDoor({ get: () => null })).toBe(false);
  });

  it('says so when the server behind it does not answer', async () => {
    const port = portOf((await openDoor()).addresses);
    inside.closeAllConnections();
    await new Promise((resolve) => inside.close(resolve));
    const answer = await ask(port, '/');
    expect([answer.status, answer.body]).toEqual([
      502,
      'Sinew does not answer just now. Try again.',
    ]);
  });

  it('is shut at once', async () => {
    const port = portOf((await openDoor()).addresses);
    await shutDoor();
    await expect(ask(port, '/')).rejects.toThrow(/ECONNREFUSED/);
    expect(isDoorHost(`127.0.0.1:${port}`)).toBe(false);
    expect(await doorNow()).toBeNull();
  });

  it('opens where it was the last time, so that phones find it; elsewhere when another has that port', async () => {
    const first = portOf((await openDoor()).addresses);
    await shutDoor();
    // Whatever stood in the way of the first ports the last time is gone by now.
    const port = first + 7;
    await writeFile(join(folder, 'door', 'port'), String(port));
    expect(portOf((await openDoor()).addresses)).toBe(port);
    await shutDoor();
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(port, resolve));
    expect(portOf((await openDoor()).addresses)).not.toBe(port);
    await shutDoor();
    other.close();
  });
});

describe('the certificate', () => {
  it('stands for every name and number, for less than 825 days, and is the same the next time', async () => {
    const data = scratchFolder('certificate');
    const hosts = ['192.168.7.20', 'fd00::2', 'localhost'];
    const made = await certificateFor(data, hosts);
    const read = new X509Certificate(made.cert);
    expect(read.checkHost('localhost')).toBe('localhost');
    expect(read.checkIP('192.168.7.20')).toBe('192.168.7.20');
    expect(read.checkIP('192.168.7.21')).toBeUndefined();
    const days = (Date.parse(read.validTo) - Date.parse(read.validFrom)) / 86_400_000;
    // What phones believe at most (Apple, "Requirements for trusted certificates in iOS 13").
    expect(days).toBeLessThanOrEqual(825);
    expect(read.publicKey.asymmetricKeyType).toBe('ec');
    expect(await certificateFor(data, ['localhost'])).toEqual(made);
    const anew = await certificateFor(data, [...hosts, '192.168.7.21']);
    expect(anew.fingerprint).not.toBe(made.fingerprint);
    for (const name of readdirSync(join(data, 'door'))) {
      expect(statSync(join(data, 'door', name)).mode & 0o077, name).toBe(0);
    }
  });

  it('may be the owner’s own, and is refused in words when it cannot be read', async () => {
    const data = scratchFolder('certificate');
    const made = await certificateFor(data, ['gym.example.org']);
    process.env.SINEW_CERT = join(data, 'door', 'certificate.pem');
    process.env.SINEW_CERT_KEY = join(data, 'door', 'key.pem');
    const own = await certificateFor(scratchFolder('other'), ['192.168.7.20']);
    expect([own.fingerprint, own.isOwnMade]).toEqual([made.fingerprint, false]);
    expect(own.hosts).toEqual(['gym.example.org']);
    process.env.SINEW_CERT = join(data, 'nothing.pem');
    await expect(certificateFor(data, [])).rejects.toThrow(/cannot be read/);
    delete process.env.SINEW_CERT;
    delete process.env.SINEW_CERT_KEY;
  });
});

describe('addresses', () => {
  // RFC 1918, RFC 3927, RFC 4193, RFC 4291; and their neighbours outside of them.
  it.each([
    ['10.0.0.1', true],
    ['11.0.0.1', false],
    ['172.16.0.1', true],
    ['172.31.255.255', true],
    ['172.32.0.1', false],
    ['192.168.1.9', true],
    ['192.169.1.9', false],
    ['169.254.9.9', true],
    ['127.0.0.1', true],
    ['8.8.8.8', false],
    ['::1', true],
    ['fd12::9', true],
    ['fe80::1%wlan0', true],
    ['2001:db8::1', false],
    ['::ffff:192.168.1.9', true],
    ['::ffff:8.8.8.8', false],
    ['', false],
  ])('%s is of a network like the gym’s: %s', (address, isIt) => {
    expect(isNearby(address)).toBe(isIt);
  });

  it('are told as they can be typed, the likeliest first', () => {
    const card = (address: string, internal = false) => ({ address, internal });
    const cards = {
      lo: [card('127.0.0.1', true)],
      eth0: [card('fe80::9'), card('fd00::2'), card('10.1.1.1')],
      wlan0: [card('192.168.7.20'), card('203.0.113.5')],
    } as unknown as NonNullable<Parameters<typeof ownNumbers>[0]>;
    expect(ownNumbers(cards)).toEqual(['192.168.7.20', '10.1.1.1', 'fd00::2']);
    expect([inAddress('fd00::2'), inAddress('10.1.1.1')]).toEqual(['[fd00::2]', '10.1.1.1']);
    expect(plainAddress('::ffff:10.1.1.1')).toBe('10.1.1.1');
  });
});
