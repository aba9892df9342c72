/** The archive that a gym's file is: opened, and its parts taken out within limits and checked. */
import { createHash } from 'node:crypto';
import { statfs } from 'node:fs/promises';
import { PassThrough, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { reserve } from '../film/clipFiles';
import type { Manifest } from './gymManifest';

/** What is wrong with a file, in words for the coach. */
export class GymFileError extends Problem {
  constructor(happened: string, todo = '') {
    super('refused', { happened, safe: 'Nothing was taken over.', todo });
  }
}

export const wrong = (what: string) => new GymFileError(what);

/** A gym of a hundred thousand films has no more parts. */
const MOST_PARTS = 100_000;
/** Films hardly shrink, rows of text well; what shrinks more than this was made to swell, times. */
const MOST_SWELLING = { film: 20, rows: 200 } as const;
/** Parts smaller than this may shrink as they like, bytes. */
const SMALL = 1024 * 1024;
/** A file may take so long, seconds, and so much more for each of its megabytes. */
const TIME = { least: 600, perMegabyte: 0.25 };

export interface Zip {
  readonly entries: ReadonlyMap<string, yauzl.Entry>;
  readonly file: yauzl.ZipFile;
  /** Raised when it takes longer than any honest file would. */
  readonly late: AbortSignal;
  close(): void;
}

/** @param bytes of the file */
export async function openZip(path: string, bytes: number): Promise<Zip> {
  const file = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.open(path, { lazyEntries: true, autoClose: false }, (error, opened) =>
      error
        ? reject(wrong('This is not a gym’s file, or it was cut off on its way.'))
        : resolve(opened),
    ),
  );
  const entries = new Map<string, yauzl.Entry>();
  await new Promise<void>((resolve, reject) => {
    file.on('entry', (entry: yauzl.Entry) => {
      if (entries.has(entry.fileName)) {
        reject(wrong(`The file holds ${entry.fileName} twice.`));
        return;
      }
      entries.set(entry.fileName, entry);
      if (entries.size > MOST_PARTS) reject(wrong('The file has more parts than any gym has.'));
      else file.readEntry();
    });
    file.on('end', resolve);
    file.on('error', () => reject(wrong('This file is damaged.')));
    file.readEntry();
  }).catch((error: unknown) => {
    file.close();
    throw error;
  });
  const seconds = TIME.least + TIME.perMegabyte * (bytes / 1e6);
  return {
    entries,
    file,
    late: AbortSignal.timeout(Math.ceil(1000 * seconds)),
    close: () => file.close(),
  };
}

/**
 * Before anything is taken out: every part is named and as large as the manifest says, none swells
 * beyond what films and rows do, and all of them have room on the disk.
 *
 * @param folder where it is taken out to
 */
export async function checkParts(
  { entries }: Zip,
  { files }: Manifest,
  manifestName: string,
  folder: string,
): Promise<void> {
  let needed = 0;
  for (const [name, entry] of entries) {
    if (name === manifestName) continue;
    const said = files[name];
    if (!said) throw wrong(`The file holds ${name}, of which its manifest knows nothing.`);
    const { compressedSize, uncompressedSize } = entry;
    if (uncompressedSize !== said.bytes) {
      throw wrong(`${name} is not what the file says it is: it was damaged or changed.`);
    }
    const kind = name.startsWith('clips/') ? 'film' : 'rows';
    if (uncompressedSize > SMALL && uncompressedSize > MOST_SWELLING[kind] * compressedSize) {
      throw wrong(`${name} swells to ${megabytes(uncompressedSize)} from next to nothing.`);
    }
    // Rows stand twice on the disk while they are taken over, a film is moved.
    needed += kind === 'film' ? uncompressedSize : 2 * uncompressedSize;
  }
  const { bavail, bsize } = await statfs(folder);
  const free = Math.max(0, bavail * bsize - reserve());
  if (needed > free) {
    throw new GymFileError(
      `The file needs ${megabytes(needed)} while it is taken over, and ${megabytes(free)} are free.`,
      'Free some space and try again.',
    );
  }
}

const megabytes = (bytes: number) => `${Math.ceil(bytes / 1e6)} MB`;

async function streamOf({ entries, file }: Zip, name: string): Promise<Readable> {
  const entry = entries.get(name);
  if (!entry) throw wrong(`The file lacks ${name}.`);
  return new Promise((resolve, reject) =>
    file.openReadStream(entry, (error, stream) =>
      error ? reject(wrong(`${name} cannot be read.`)) : resolve(stream),
    ),
  );
}

/**
 * Pass a part of the file on; throws when it is not what the manifest says.
 *
 * @param to is asked for where there is such a part
 */
export async function hashed(
  zip: Zip,
  name: string,
  { bytes, sha256: wanted }: Manifest['files'][string],
  to: () => NodeJS.WritableStream,
): Promise<void> {
  const hash = createHash('sha256');
  let count = 0;
  const look = new PassThrough();
  look.on('data', (chunk: Buffer) => {
    hash.update(chunk);
    count += chunk.length;
  });
  try {
    await pipeline(await streamOf(zip, name), look, to(), { signal: zip.late });
  } catch (error) {
    if (error instanceof GymFileError) throw error;
    if (zip.late.aborted) throw wrong('The file takes longer to read than any gym’s file would.');
    throw wrong(`${name} is damaged.`);
  }
  if (count !== bytes || hash.digest('hex') !== wanted) {
    throw wrong(`${name} is not what the file says it is: it was damaged or changed.`);
  }
}

/** A part as a whole. */
export async function collected(zip: Zip, name: string, most: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  try {
    for await (const chunk of await streamOf(zip, name)) {
      chunks.push(chunk as Buffer);
      size += (chunk as Buffer).length;
      if (size > most) throw wrong(`${name} is larger than it can be.`);
    }
  } catch (error) {
    if (error instanceof GymFileError) throw error;
    throw wrong(`${name} is damaged.`);
  }
  return Buffer.concat(chunks);
}
