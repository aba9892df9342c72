/**
 * A whole gym as one zip: `manifest.json` with the SHA-256 of everything else, the tables as lines of
 * JSON, the films as they were filmed.
 */
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { nanoid } from 'nanoid';
import yazl from 'yazl';
import type { ClipFiles } from '../clip/clipFiles';
import { now, type Db } from '../database/db';
import { theGym } from '../gym/gym';
import { MANIFEST, SCHEMA, type Manifest } from './gymManifest';
import { streamed, TABLES, toLine, type Row } from './gymTables';

/**
 * @param scratch a folder in which tables wait until they have been read; emptied afterwards
 * @returns the zip, as it is made
 */
export async function exportGym(db: Db, files: ClipFiles, scratch: string): Promise<Readable> {
  const waiting = join(scratch, `gym-${nanoid()}`);
  await mkdir(waiting, { recursive: true, mode: 0o700 });
  const away = () => rm(waiting, { recursive: true, force: true });
  try {
    const zip = new yazl.ZipFile();
    const counts: Record<string, number> = {};
    const listed: Manifest['files'] = {};
    // One view of the database: nothing can change between one table and the next.
    const films = await db.transaction().execute(async (trx) => {
      for (const table of TABLES) {
        const place = join(waiting, table);
        const { rows, ...about } = await written(streamed(trx, table), place);
        const name = `tables/${table}.jsonl`;
        counts[table] = rows;
        listed[name] = about;
        zip.addFile(place, name);
      }
      return trx.selectFrom('clip').select('sha256').where('purged_at', 'is', null).execute();
    });
    const missing: string[] = [];
    for (const hash of new Set(films.map((film) => film.sha256))) {
      const bytes = await files.size(hash);
      if (bytes === null) {
        missing.push(hash);
        continue;
      }
      const name = `clips/${hash}.bin`;
      listed[name] = { bytes, sha256: hash };
      zip.addFile(files.pathOf(hash), name, { compress: false });
    }
    const gym = await theGym(db);
    const manifest: Manifest = {
      format: 'sinew-gym',
      version: 1,
      schema: SCHEMA,
      madeAt: now(),
      gym: gym.name,
      counts,
      files: listed,
      missing,
    };
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), MANIFEST);
    zip.end();
    const output = zip.outputStream as Readable;
    output.once('close', () => void away());
    return output;
  } catch (error) {
    await away();
    throw error;
  }
}

/** Write rows as lines of JSON. */
async function written(
  rows: AsyncIterable<Row>,
  place: string,
): Promise<{ rows: number; bytes: number; sha256: string }> {
  const hash = createHash('sha256');
  let [count, bytes] = [0, 0];
  async function* lines() {
    for await (const row of rows) {
      const line = Buffer.from(`${toLine(row)}\n`);
      hash.update(line);
      count += 1;
      bytes += line.length;
      yield line;
    }
  }
  await pipeline(lines, createWriteStream(place, { mode: 0o600 }));
  return { rows: count, bytes, sha256: hash.digest('hex') };
}
