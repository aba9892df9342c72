/**
 * One server a data folder. The hold is a lock that the system itself keeps for as long as the process
 * lives – on a small file beside the database –, so none is ever left over by a machine that stopped.
 */
import { readFileSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { z } from 'zod';
import { writeWhole } from './writeWhole';

const LOCK = 'in-use.lock';
const HOLDER = 'in-use.json';

const holderSchema = z.object({
  pid: z.number().int(),
  /** Where it answers, as the terminal shows it; null for a program that does not. */
  address: z.string().nullable(),
});
export type Holder = z.infer<typeof holderSchema>;

export interface Hold {
  readonly isHeld: true;
  release(): void;
}

export interface HeldBy {
  readonly isHeld: false;
  /** Null where that cannot be read. */
  readonly by: Holder | null;
}

/**
 * Hold a folder until this process ends.
 *
 * @returns what lets it go earlier, or who holds it
 */
export async function hold(folder: string, holder: Holder): Promise<Hold | HeldBy> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const lock = new Database(join(folder, LOCK), { timeout: 0 });
  try {
    lock.exec('begin exclusive');
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code === 'SQLITE_BUSY') {
      return { isHeld: false, by: holderOf(folder) };
    }
    throw error;
  }
  await writeWhole(join(folder, HOLDER), JSON.stringify(holder));
  return { isHeld: true, release: () => lock.close() };
}

function holderOf(folder: string): Holder | null {
  try {
    return holderSchema.parse(JSON.parse(readFileSync(join(folder, HOLDER), 'utf8')));
  } catch {
    return null;
  }
}

/** Who it is, in words. */
export function holderInWords(by: Holder | null): string {
  if (by === null) return 'another Sinew';
  return by.address ? `the Sinew at ${by.address}` : `the process ${by.pid}`;
}
