/** By what a phone knows this machine: a certificate made here, or one that the owner has. */
import { X509Certificate } from 'node:crypto';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isIP } from 'node:net';
import { generate } from 'selfsigned';
import { refused } from '@sinew/core/foundation/problem/problem';
import { writeWhole } from '../database/writeWhole';

export interface Certificate {
  readonly cert: string;
  readonly key: string;
  /** SHA-256, as browsers show it. */
  readonly fingerprint: string;
  /** Names and numbers that it stands for. */
  readonly hosts: readonly string[];
  /** Made here: browsers ask once whether to believe it. */
  readonly isOwnMade: boolean;
}

const DAY = 86_400_000;
/** Days; phones believe none that lasts longer. Source: Apple, "Requirements for trusted certificates". */
const LASTS = 800;
/** Days before its end in which it is made anew. */
const EARLY = 30;
/** Addresses that one certificate stands for, the present ones first. */
const MOST_HOSTS = 24;

/** @returns names and numbers in a certificate's text, as Node writes them out */
function hostsIn(certificate: X509Certificate): string[] {
  return (certificate.subjectAltName ?? '')
    .split(/,\s*/)
    .map((one) => one.replace(/^(DNS|IP Address):/, '').toLowerCase())
    .filter(Boolean);
}

function certificateOf(cert: string, key: string, isOwnMade: boolean): Certificate {
  const read = new X509Certificate(cert);
  return { cert, key, fingerprint: read.fingerprint256, hosts: hostsIn(read), isOwnMade };
}

/**
 * The owner's certificate where `SINEW_CERT` and `SINEW_CERT_KEY` name one, else the one made here, anew
 * only when it ends or does not stand for a host: phones that know it need not be asked again.
 *
 * @param hosts names and numbers it must stand for
 * @throws Problem `refused` when the owner's cannot be read
 */
export async function certificateFor(
  folder: string,
  hosts: readonly string[],
): Promise<Certificate> {
  const { SINEW_CERT: cert, SINEW_CERT_KEY: key } = process.env;
  if (cert && key) return ownersCertificate(cert, key);
  const kept = await keptCertificate(folder);
  if (kept && isGood(kept, hosts)) return kept;
  // Where it was before it may be again tomorrow, and is then not asked about anew.
  const all = new Set([...hosts, ...(kept?.hosts ?? [])]);
  return makeCertificate(folder, [...all].slice(0, MOST_HOSTS));
}

async function ownersCertificate(certPath: string, keyPath: string): Promise<Certificate> {
  try {
    const [cert, key] = await Promise.all([
      readFile(/* turbopackIgnore: true */ certPath, 'utf8'),
      readFile(/* turbopackIgnore: true */ keyPath, 'utf8'),
    ]);
    return certificateOf(cert, key, false);
  } catch {
    throw refused(
      'The certificate or its key cannot be read.',
      'Both are PEM files: look at --cert and --cert-key.',
    );
  }
}

const placeOf = (folder: string) => ({
  cert: join(folder, 'door', 'certificate.pem'),
  key: join(folder, 'door', 'key.pem'),
});

async function keptCertificate(folder: string): Promise<Certificate | null> {
  const { cert, key } = placeOf(folder);
  try {
    return certificateOf(await readFile(cert, 'utf8'), await readFile(key, 'utf8'), true);
  } catch {
    return null;
  }
}

function isGood({ cert, hosts }: Certificate, wanted: readonly string[]): boolean {
  const left = Date.parse(new X509Certificate(cert).validTo) - Date.now();
  return left > EARLY * DAY && wanted.every((host) => hosts.includes(host));
}

async function makeCertificate(folder: string, hosts: readonly string[]): Promise<Certificate> {
  const now = Date.now();
  const made = await generate([{ name: 'commonName', value: 'Sinew at the gym' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    // A phone's clock may be slow.
    notBeforeDate: new Date(now - DAY),
    notAfterDate: new Date(now + LASTS * DAY),
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: hosts.map((host) =>
          isIP(host) ? { type: 7, ip: host } : { type: 2, value: host },
        ),
      },
    ],
  });
  const { cert, key } = placeOf(folder);
  await mkdir(join(folder, 'door'), { recursive: true, mode: 0o700 });
  await writeWhole(key, made.private);
  await writeWhole(cert, made.cert);
  return certificateOf(made.cert, made.private, true);
}
