/** A gym's file, checked, and taken over whole or not at all; see `gymExport.ts`. */
import { Problem } from '@sinew/core/foundation/problem/problem';
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { PassThrough, Writable, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { StringDecoder } from 'node:string_decoder';
import Database from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import { nanoid } from 'nanoid';
import yauzl from 'yauzl';
import type { z } from 'zod';
import { servedType } from '../../video/filmTypes';
import { UnusableFilm, type Film as FoundFilm } from '../../video/inspect';
import type { ClipFiles } from '../clip/clipFiles';
import type { Db } from '../database/db';
import { MANIFEST, manifestSchema, SCHEMA, type Manifest } from './gymManifest';
import { insertRow, rowSchema, rowsOf, TABLES, type Row, type TableName } from './gymTables';
import { inspectFile } from '../clip/inspectFile';
import { MIGRATIONS } from '../database/migrations';
import { encodeTimes } from '../bench/placedBlob';
import { takeOver, type Contents, type TakenOver } from './gymTakeOver';

/** What is wrong with a file, in words for the coach. */
export class GymFileError extends Problem {
  constructor(happened: string) {
    super('refused', { happened, safe: 'Nothing was taken over.' });
  }
}

const wrong = (what: string) => new GymFileError(what);

export interface Checked {
  readonly gym: string;
  readonly madeAt: string;
  readonly students: number;
  readonly clips: number;
  readonly strikes: number;
}

export interface Imported extends Checked, TakenOver {}

/**
 * Check every byte, row and film of a file, and take nothing over.
 *
 * @param incoming where a film waits while it is looked into
 */
export async function verifyGym(path: string, incoming: string): Promise<Checked> {
  return opened(path, incoming, async (zip, waiting) => {
    const { manifest } = await readTables(zip);
    for (const name of filmNames(manifest)) {
      const { path: film } = await filmOf(zip, name, manifest, waiting);
      await rm(film);
    }
    return summary(manifest);
  });
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
  return opened(path, incoming, async (zip, waiting) => {
    const { manifest, contents } = await readTables(zip);
    const films: Film[] = [];
    for (const name of filmNames(manifest)) films.push(await filmOf(zip, name, manifest, waiting));
    // Files first: a row never names a film that is not there. A film without a row is put aside later.
    for (const film of films) {
      if ((await files.size(film.sha256)) === null) await files.keep(film);
    }
    const known = { ...contents, clip: asFound(contents.clip, films) };
    const outcome = await db.transaction().execute((trx) => takeOver(trx, known));
    return { ...summary(manifest), ...outcome };
  });
}

/** Work on a file with a folder for what waits, both put away afterwards. */
async function opened<T>(
  path: string,
  incoming: string,
  work: (zip: Zip, waiting: string) => Promise<T>,
): Promise<T> {
  const zip = await openZip(path);
  const waiting = join(incoming, `gym-${nanoid()}`);
  try {
    await mkdir(waiting, { recursive: true, mode: 0o700 });
    return await work(zip, waiting);
  } finally {
    zip.close();
    await rm(waiting, { recursive: true, force: true });
  }
}

/** A film of the file: where it waits, and what was found in it. */
interface Film {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
  readonly found: FoundFilm;
}

/** Taken out of the file, checked, and looked into as every film that is added is. */
async function filmOf(zip: Zip, name: string, manifest: Manifest, waiting: string): Promise<Film> {
  const { sha256, bytes } = manifest.files[name]!;
  const path = join(waiting, sha256);
  await hashed(zip, name, manifest, createWriteStream(path, { mode: 0o600, flush: true }));
  try {
    return { path, sha256, bytes, found: await inspectFile({ path, bytes }) };
  } catch (error) {
    if (!(error instanceof UnusableFilm)) throw error;
    throw wrong(`${name} is no film that Sinew can use: ${error.message}`);
  }
}

/** Clips as their films are, whatever the file says of them. */
function asFound(clips: readonly Row[], films: readonly Film[]): Row[] {
  const bySha = new Map(films.map((film) => [film.sha256, film]));
  return clips.map((clip) => {
    const film = bySha.get(String(clip.sha256));
    if (!film) return { ...clip, mime_type: servedType(String(clip.mime_type)) };
    const { mimeType, width, height, codec, frameTimes } = film.found;
    return {
      ...clip,
      mime_type: mimeType,
      bytes: film.bytes,
      width,
      height,
      codec,
      frame_times: encodeTimes(frameTimes),
    };
  });
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

async function readTables(zip: Zip): Promise<{ manifest: Manifest; contents: Contents }> {
  const text = await collected(zip, MANIFEST, LARGEST_MANIFEST);
  const manifest = parsed(manifestSchema, text.toString(), MANIFEST);
  if (!(manifest.schema in MIGRATIONS)) {
    throw wrong(`This file was made by a newer Sinew (${manifest.schema}, here ${SCHEMA}).`);
  }
  const listed = new Set([MANIFEST, ...Object.keys(manifest.files)]);
  for (const name of zip.entries.keys()) {
    if (!listed.has(name))
      throw wrong(`The file holds ${name}, of which its manifest knows nothing.`);
  }
  // The tables as they were when the file was made; brought up to date when all of it has been read.
  const then = await tablesOf(manifest.schema);
  try {
    const contents = {} as Record<TableName, Row[]>;
    for (const table of TABLES) {
      contents[table] = await readTable(zip, manifest, table, await rowSchema(then, table));
    }
    const isOlder = manifest.schema !== SCHEMA;
    return { manifest, contents: isOlder ? await broughtUpToDate(then, contents) : contents };
  } finally {
    await then.destroy();
  }
}

async function readTable(
  zip: Zip,
  manifest: Manifest,
  table: TableName,
  schema: z.ZodType<Row> | null,
): Promise<Row[]> {
  // A table that came later.
  if (schema === null) return [];
  const name = `tables/${table}.jsonl`;
  if (!manifest.files[name]) throw wrong(`The file lacks ${name}.`);
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
  if (rows.length !== manifest.counts[table]) {
    throw wrong(`${name} has not as many rows as it says.`);
  }
  return rows;
}

/** An empty database in memory, as it was after a change of the tables. */
async function tablesOf(schema: string): Promise<Db> {
  const dialect = new SqliteDialect({ database: new Database(':memory:') });
  const db: Db = new Kysely({ dialect });
  const { error } = await migratorOf(db).migrateTo(schema);
  if (error) throw error;
  return db;
}

const migratorOf = (db: Db) =>
  new Migrator({ db, provider: { getMigrations: async () => ({ ...MIGRATIONS }) } });

/** Rows of an older Sinew, as this one keeps them. */
async function broughtUpToDate(then: Db, contents: Contents): Promise<Contents> {
  try {
    for (const table of TABLES) {
      for (const row of contents[table]) await insertRow(then, table, row);
    }
    const { error } = await migratorOf(then).migrateToLatest();
    if (error) throw error;
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw wrong(`Its rows do not fit together (${why}).`);
  }
  const now = {} as Record<TableName, Row[]>;
  for (const table of TABLES) now[table] = await rowsOf(then, table);
  return now;
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
