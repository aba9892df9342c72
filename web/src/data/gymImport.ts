/** A gym's file, checked, and taken over whole or not at all; see `gymExport.ts`. */
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { PassThrough, Writable, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { StringDecoder } from 'node:string_decoder';
import { nanoid } from 'nanoid';
import yauzl from 'yauzl';
import type { z } from 'zod';
import type { ClipFiles } from './clipFiles';
import type { Db } from './database';
import { MANIFEST, manifestSchema, SCHEMA, type Manifest } from './gymManifest';
import { rowSchema, TABLES, type Row, type TableName } from './gymTables';
import { takeOver, type Contents, type TakenOver } from './gymTakeOver';

/** What is wrong with a file, in words for the coach. */
export class GymFileError extends Error {}

const wrong = (what: string) => new GymFileError(`${what} Nothing was taken over.`);

export interface Checked {
  readonly gym: string;
  readonly madeAt: string;
  readonly students: number;
  readonly clips: number;
  readonly strikes: number;
}

export interface Imported extends Checked, TakenOver {}

/** Check every byte and every row of a file, and take nothing over. */
export async function verifyGym(db: Db, path: string): Promise<Checked> {
  const zip = await openZip(path);
  try {
    const { manifest } = await readTables(db, zip);
    for (const name of filmNames(manifest)) {
      await hashed(zip, name, manifest, new PassThrough().resume());
    }
    return summary(manifest);
  } finally {
    zip.close();
  }
}

/**
 * Take a gym over: into an empty one with its name and library, into another one beside what is there.
 * What is here already stays as it is.
 *
 * @param incoming where films wait until everything has been checked
 */
export async function importGym(
  db: Db,
  files: ClipFiles,
  path: string,
  incoming: string,
): Promise<Imported> {
  const zip = await openZip(path);
  const waiting = join(incoming, `gym-${nanoid()}`);
  try {
    const { manifest, contents } = await readTables(db, zip);
    await mkdir(waiting, { recursive: true, mode: 0o700 });
    const films = [];
    for (const name of filmNames(manifest)) {
      const { sha256: hash, bytes } = manifest.files[name]!;
      const place = join(waiting, hash);
      await hashed(zip, name, manifest, createWriteStream(place, { mode: 0o600, flush: true }));
      films.push({ path: place, sha256: hash, bytes });
    }
    // Files first: a row never names a film that is not there. A film without a row is swept later.
    for (const film of films) {
      if ((await files.size(film.sha256)) === null) await files.keep(film);
    }
    const outcome = await db.transaction().execute((trx) => takeOver(trx, contents));
    return { ...summary(manifest), ...outcome };
  } finally {
    zip.close();
    await rm(waiting, { recursive: true, force: true });
  }
}

const filmNames = ({ files }: Manifest) =>
  Object.keys(files).filter((name) => name.startsWith('clips/'));

function summary({ gym, madeAt, counts }: Manifest): Checked {
  const of = (table: TableName) => counts[table] ?? 0;
  return { gym, madeAt, students: of('student'), clips: of('clip'), strikes: of('strike') };
}

interface Zip {
  readonly entries: ReadonlyMap<string, yauzl.Entry>;
  readonly file: yauzl.ZipFile;
  close(): void;
}

async function openZip(path: string): Promise<Zip> {
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
      entries.set(entry.fileName, entry);
      file.readEntry();
    });
    file.on('end', resolve);
    file.on('error', () => reject(wrong('This file is damaged.')));
    file.readEntry();
  }).catch((error: unknown) => {
    file.close();
    throw error;
  });
  return { entries, file, close: () => file.close() };
}

async function streamOf({ entries, file }: Zip, name: string): Promise<Readable> {
  const entry = entries.get(name);
  if (!entry) throw wrong(`The file lacks ${name}.`);
  return new Promise((resolve, reject) =>
    file.openReadStream(entry, (error, stream) =>
      error ? reject(wrong(`${name} cannot be read.`)) : resolve(stream),
    ),
  );
}

/** Pass a part of the file on; throws when it is not what the manifest says. */
async function hashed(
  zip: Zip,
  name: string,
  { files }: Manifest,
  to: NodeJS.WritableStream,
): Promise<void> {
  const { bytes, sha256: wanted } = files[name]!;
  const hash = createHash('sha256');
  let count = 0;
  const look = new PassThrough();
  look.on('data', (chunk: Buffer) => {
    hash.update(chunk);
    count += chunk.length;
  });
  try {
    await pipeline(await streamOf(zip, name), look, to);
  } catch (error) {
    if (error instanceof GymFileError) throw error;
    throw wrong(`${name} is damaged.`);
  }
  if (count !== bytes || hash.digest('hex') !== wanted) {
    throw wrong(`${name} is not what the file says it is: it was damaged or changed.`);
  }
}

async function collected(zip: Zip, name: string, most: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of await streamOf(zip, name)) {
    chunks.push(chunk as Buffer);
    size += (chunk as Buffer).length;
    if (size > most) throw wrong(`${name} is larger than it can be.`);
  }
  return Buffer.concat(chunks);
}

const LARGEST_MANIFEST = 64 * 1024 * 1024;

async function readTables(db: Db, zip: Zip): Promise<{ manifest: Manifest; contents: Contents }> {
  const text = await collected(zip, MANIFEST, LARGEST_MANIFEST);
  const manifest = parsed(manifestSchema, text.toString(), MANIFEST);
  if (manifest.schema !== SCHEMA) {
    throw wrong(`This file was made by another Sinew (${manifest.schema}, here ${SCHEMA}).`);
  }
  const listed = new Set([MANIFEST, ...Object.keys(manifest.files)]);
  for (const name of zip.entries.keys()) {
    if (!listed.has(name))
      throw wrong(`The file holds ${name}, of which its manifest knows nothing.`);
  }
  const contents = {} as Record<TableName, Row[]>;
  for (const table of TABLES) {
    const name = `tables/${table}.jsonl`;
    const expected = manifest.files[name];
    if (!expected) throw wrong(`The file lacks ${name}.`);
    const schema = await rowSchema(db, table);
    const rows: Row[] = [];
    let problem: unknown = null;
    const take = (line: string) => {
      if (line === '' || problem !== null) return;
      try {
        rows.push(parsed(schema, line, `${name}, line ${rows.length + 1}`));
      } catch (error) {
        problem = error;
      }
    };
    await hashed(zip, name, manifest, linesTo(take));
    // A row that is none is told only when the file is what it says it is.
    if (problem !== null) throw problem;
    contents[table] = rows;
    if (rows.length !== manifest.counts[table]) {
      throw wrong(`${name} has not as many rows as it says.`);
    }
  }
  return { manifest, contents };
}

/** Cuts what is written to it into lines; the last one has an end too. */
function linesTo(take: (line: string) => void): Writable {
  const decoder = new StringDecoder('utf8');
  let rest = '';
  return new Writable({
    write(chunk: Buffer, _, done) {
      const lines = (rest + decoder.write(chunk)).split('\n');
      rest = lines.pop()!;
      lines.forEach(take);
      done();
    },
    final(done) {
      take(rest + decoder.end());
      done();
    },
  });
}

function parsed<T>(schema: z.ZodType<T>, text: string, where: string): T {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw wrong(`${where} is no JSON.`);
  }
  const found = schema.safeParse(json);
  if (found.success) return found.data;
  const [issue] = found.error.issues;
  throw wrong(`${where}: ${issue!.path.join('.')} ${issue!.message}.`);
}
