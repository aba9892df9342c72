/**
 * A whole gym, or one student of it, as one zip: `manifest.json` with the SHA-256 of everything else, the tables as lines of
 * JSON, the films as they were filmed.
 */
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { nanoid } from 'nanoid';
import yazl from 'yazl';
import type { ClipFiles } from '../film/clipFiles';
import { now } from '../database/db';
import { askIn } from '../threads/threads';
import type { Scope } from './exportScope';
import { MANIFEST, SCHEMA, type Manifest } from './gymManifest';
import { tableFile } from './gymTables';

/**
 * @param scratch a folder in which tables wait until they have been read; emptied afterwards
 * @returns the zip, as it is made
 */
export async function exportGym(
  files: ClipFiles,
  scratch: string,
  scope: Scope = { kind: 'all' },
): Promise<Readable> {
  const waiting = join(scratch, `gym-${nanoid()}`);
  await mkdir(waiting, { recursive: true, mode: 0o700 });
  const away = () => rm(waiting, { recursive: true, force: true });
  try {
    const zip = new yazl.ZipFile();
    const { tables, films, gym } = await askIn(files.folder, 'writeTables', waiting, scope);
    const counts: Record<string, number> = {};
    const listed: Manifest['files'] = {};
    for (const { table, rows, ...about } of tables) {
      const name = tableFile(table);
      counts[table] = rows;
      listed[name] = about;
      zip.addFile(join(waiting, table), name);
    }
    const missing: string[] = [];
    for (const hash of films) {
      const bytes = await files.size(hash);
      if (bytes === null) {
        missing.push(hash);
        continue;
      }
      const name = `clips/${hash}.bin`;
      listed[name] = { bytes, sha256: hash };
      zip.addReadStreamLazy(name, { compress: false, size: bytes }, (give) => {
        files.shelf.read(hash, 0, bytes - 1).then(
          (film) => give(null, Readable.fromWeb(film as NodeStream)),
          (error: unknown) => give(error, new Readable()),
        );
      });
    }
    const manifest: Manifest = {
      format: 'sinew-gym',
      version: 1,
      schema: SCHEMA,
      madeAt: now(),
      gym,
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
