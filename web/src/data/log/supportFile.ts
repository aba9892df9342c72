/**
 * A file for whoever helps the coach: versions, sizes, counts and the log. It holds no film, no name,
 * no mark and no word of anybody.
 */
import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { sql } from 'kysely';
import yazl from 'yazl';
import { now, type Db } from '../database/db';
import { SCHEMA } from '../transfer/gymManifest';
import { TABLES } from '../transfer/gymTables';
import { logFolder } from './log';

interface About {
  readonly format: 'sinew-support';
  readonly version: 1;
  readonly madeAt: string;
  readonly node: string;
  readonly system: string;
  /** The newest change of the tables. */
  readonly schema: string;
  readonly rows: Readonly<Record<string, number>>;
  /** Bytes by file beside the clips, and of all clips together. */
  readonly files: Readonly<Record<string, number>>;
  /** What SQLite's own check says. */
  readonly check: readonly string[];
}

/** @param folder the data folder */
export async function supportFile(db: Db, folder: string): Promise<Readable> {
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(await aboutThis(db, folder), null, 2)), 'about.json');
  for (const name of await namesIn(logFolder(folder))) {
    zip.addBuffer(await readFile(join(logFolder(folder), name)), `log/${name}`);
  }
  zip.end();
  return zip.outputStream as Readable;
}

async function aboutThis(db: Db, folder: string): Promise<About> {
  const rows: Record<string, number> = {};
  for (const table of TABLES) {
    const { count } = await db
      .selectFrom(table)
      .select(({ fn }) => fn.countAll<number>().as('count'))
      .executeTakeFirstOrThrow();
    rows[table] = count;
  }
  const { rows: check } = await sql<{ quick_check: string }>`pragma quick_check(20)`.execute(db);
  return {
    format: 'sinew-support',
    version: 1,
    madeAt: now(),
    node: process.version,
    system: `${process.platform} ${process.arch}`,
    schema: SCHEMA,
    rows,
    files: await sizesIn(folder),
    check: check.map(({ quick_check }) => quick_check),
  };
}

/** Names of ours only: what else a coach keeps in the folder is nobody's business. */
const OURS = /^(sinew\.db(-wal|-shm)?|[a-z-]+\.json|backups|set-aside|incoming|clips|log)$/;

async function sizesIn(folder: string): Promise<Record<string, number>> {
  const sizes: Record<string, number> = {};
  for (const name of await namesIn(folder)) {
    if (OURS.test(name)) sizes[name] = await sizeOf(join(folder, name));
  }
  return sizes;
}

async function sizeOf(path: string): Promise<number> {
  const about = await stat(path);
  if (!about.isDirectory()) return about.size;
  const inside = await Promise.all((await namesIn(path)).map((name) => sizeOf(join(path, name))));
  return inside.reduce((sum, size) => sum + size, 0);
}

/** Nothing where there is no such folder. */
async function namesIn(folder: string): Promise<string[]> {
  try {
    return (await readdir(folder)).sort();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
    throw error;
  }
}
