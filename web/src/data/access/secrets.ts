/** Codes that let somebody in: made, kept as hashes only, compared without telling by time. */
import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import PQueue from 'p-queue';
import { z } from 'zod';

/** What a browser keeps: 256 bits, so that a plain hash of it is enough. */
export const newToken = (): string => randomBytes(32).toString('base64url');

export const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Letters and digits that are not taken for one another; no I, L, O, U. Source: Crockford, Base 32. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const LETTERS_LONG = 10;

/** A code that can be typed: ten letters of five bits each, in two groups. */
export function newCode(): string {
  const letters = [...randomBytes(LETTERS_LONG)].map((byte) => LETTERS[byte % LETTERS.length]!);
  return `${letters.slice(0, 5).join('')}-${letters.slice(5).join('')}`;
}

/** A code as it was made, however it was typed. */
export const typedCode = (text: string): string =>
  text
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replace(/[IL]/g, '1')
    .replace(/O/g, '0')
    .replace(/^(.{5})/, '$1-');

const LEAST = 8;

export const passcodeSchema = z
  .string()
  .min(LEAST, `A passcode has at least ${LEAST} letters or digits.`)
  .max(200, 'This passcode is too long.')
  .refine((text) => new Set(text.toLowerCase()).size >= 5, {
    message: 'This passcode is too easy to guess: use at least five different letters or digits.',
  })
  .refine((text) => !isRun(text), {
    message: 'This passcode is too easy to guess: it counts up or down.',
  });

/** "12345678", "hgfedcba". */
function isRun(text: string): boolean {
  const steps = [...text].slice(1).map((letter, i) => letter.charCodeAt(0) - text.charCodeAt(i));
  return steps.every((step) => step === 1) || steps.every((step) => step === -1);
}

/**
 * Argon2id, the second of the two choices recommended where memory is short: 64 MiB, three passes, four
 * lanes. Source: RFC 9106, section 4.
 */
const ARGON = { algorithm: 2, memoryCost: 65_536, timeCost: 3, parallelism: 4 };

/** One at a time: whoever tries many must not take the machine's memory. */
const turns = new PQueue({ concurrency: 1 });

export const hashPasscode = (passcode: string): Promise<string> =>
  turns.add(() => hash(passcode, ARGON));

/** Of nobody: so that a name that is not there takes as long as a wrong passcode. */
let nobodys: Promise<string> | null = null;

/** @param kept null when there is no such person */
export async function isPasscode(passcode: string, kept: string | null): Promise<boolean> {
  nobodys ??= hashPasscode(newToken());
  const against = kept ?? (await nobodys);
  const isRight = await turns.add(() => verify(against, passcode).catch(() => false));
  return isRight && kept !== null;
}
