/**
 * Films in a store that speaks the S3 protocol, for an organisation whose machines share them. Films that still
 * lie in the folder of this machine are served from there until they have been carried over.
 */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, rename, rm, stat } from 'node:fs/promises';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  ListObjectsV2Command,
  PutObjectCommand,
  S3Client,
  type S3ClientConfig,
} from '@aws-sdk/client-s3';
import { nanoid } from 'nanoid';
import { logTrouble } from '../log/log';
import {
  ClipFileError,
  filmAt,
  inPieces,
  isFilmHash,
  shelfPlace,
  type FilmShelf,
  type ShelvedFilm,
} from './filmShelf';
import { bytesAt, pieceOf, type FolderShelf } from './folderShelf';
import type { S3Place } from './s3Place';

/** Bytes in one request: large enough that a film of a strike is one or two. */
const PIECE = 2 * 1024 * 1024;
/** A film is sent so many times before a person is told. */
const TRIES = 3;
/** Milliseconds. */
const TO_CONNECT = 3000;
const TO_ANSWER = 60_000;
/** Milliseconds. */
const AWAY = 3000;

export class S3Shelf implements FilmShelf {
  private readonly client: S3Client;
  /** Milliseconds of the clock until which nobody asks; null while it answers. */
  private awayUntil: number | null = null;

  /** @param here films of before, which are carried over one by one */
  constructor(
    private readonly place: S3Place,
    private readonly here: FolderShelf,
  ) {
    const config: S3ClientConfig = {
      region: place.region,
      endpoint: place.endpoint,
      // A store of one's own has no name for each bucket.
      forcePathStyle: true,
      credentials: { accessKeyId: place.key, secretAccessKey: place.secret },
      // Not every store knows checksums at a body's end; what is sent is held against its SHA-256 instead.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      maxAttempts: TRIES,
      requestHandler: { connectionTimeout: TO_CONNECT, requestTimeout: TO_ANSWER },
    };
    this.client = new S3Client(config);
  }

  async put(path: string, sha256: string): Promise<void> {
    await this.sent(path, sha256);
    await rm(path, { force: true });
  }

  async takeOut(sha256: string, path: string): Promise<void> {
    if ((await this.here.size(sha256)) !== null) return this.here.takeOut(sha256, path);
    await this.fetched(sha256, path);
    await this.remove(sha256);
  }

  async size(sha256: string): Promise<number | null> {
    if (!isFilmHash(sha256)) return null;
    return (await this.here.size(sha256)) ?? this.sizeThere(sha256);
  }

  async read(sha256: string, from: number, to: number): Promise<ReadableStream<Uint8Array>> {
    if ((await this.size(sha256)) === null) throw new Error('there is no such film');
    return inPieces(from, to, PIECE, async (first, last) => {
      // It may be carried over while somebody looks at it.
      const here = await pieceOf(this.here.pathOf(sha256), first, last).catch(() => null);
      return here ?? this.pieceThere(sha256, first, last);
    });
  }

  async remove(sha256: string): Promise<void> {
    await this.here.remove(sha256);
    await this.asked(() => this.client.send(new DeleteObjectCommand(this.of(sha256))));
  }

  async *list(): AsyncIterable<ShelvedFilm> {
    const told = new Set<string>();
    for await (const film of this.here.list()) {
      told.add(film.sha256);
      yield film;
    }
    for await (const film of this.listThere()) if (!told.has(film.sha256)) yield film;
  }

  /** It has not answered the last time. */
  get isAway(): boolean {
    return this.awayUntil !== null;
  }

  pathOf(): null {
    return null;
  }

  /** Carries the films of before over, one after the other. @returns how many went */
  async carryOver(): Promise<number> {
    let count = 0;
    for await (const { sha256 } of this.here.list()) {
      const path = this.here.pathOf(sha256);
      await this.sent(path, sha256);
      // One that was erased on its way must not be there now.
      if ((await bytesAt(path)) === null) await this.remove(sha256);
      else await rm(path, { force: true });
      count += 1;
    }
    return count;
  }

  private of(sha256: string) {
    return { Bucket: this.place.bucket, Key: this.place.prefix + shelfPlace(sha256) };
  }

  private async pieceThere(sha256: string, first: number, last: number): Promise<Uint8Array> {
    const range = `bytes=${first}-${last}`;
    const { Body } = await this.asked(() =>
      this.client.send(new GetObjectCommand({ ...this.of(sha256), Range: range })),
    );
    return Body!.transformToByteArray();
  }

  private async *listThere(): AsyncIterable<ShelvedFilm> {
    let from: string | undefined;
    do {
      const page = await this.asked(() =>
        this.client.send(
          new ListObjectsV2Command({
            Bucket: this.place.bucket,
            Prefix: this.place.prefix,
            ContinuationToken: from,
          }),
        ),
      );
      for (const { Key, Size, LastModified } of page.Contents ?? []) {
        const sha256 = filmAt(Key ?? '');
        if (sha256 !== null) yield { sha256, bytes: Size ?? 0, at: LastModified ?? new Date() };
      }
      from = page.NextContinuationToken;
    } while (from !== undefined);
  }

  private async sizeThere(sha256: string): Promise<number | null> {
    return this.asked(() =>
      this.client.send(new HeadObjectCommand(this.of(sha256))).then(
        ({ ContentLength }) => ContentLength ?? null,
        (error: unknown) => {
          if ((error as { name?: string }).name === 'NotFound') return null;
          throw error;
        },
      ),
    );
  }

  /** A stream can be sent once, so that each try has its own; the store holds it against its hash. */
  private async sent(path: string, sha256: string): Promise<void> {
    const { size } = await stat(path);
    for (let left = TRIES - 1; ; left--) {
      const command = new PutObjectCommand({
        ...this.of(sha256),
        Body: createReadStream(path),
        ContentLength: size,
        ContentType: 'application/octet-stream',
      });
      command.middlewareStack.add(
        (next) => (args) => {
          const { headers } = args.request as { headers: Record<string, string> };
          headers['x-amz-content-sha256'] = sha256;
          return next(args);
        },
        { step: 'build', name: 'hash that is signed' },
      );
      try {
        await this.client.send(command);
        break;
      } catch (error) {
        if (left > 0) continue;
        logTrouble('film store', error);
        throw unanswered();
      }
    }
    if ((await this.sizeThere(sha256)) !== size) throw unanswered();
  }

  /** A film as a file: there whole, and the very film, or not at all. */
  private async fetched(sha256: string, path: string): Promise<void> {
    const size = await this.sizeThere(sha256);
    if (size === null) throw new Error('there is no such film');
    const making = `${path}.${nanoid()}`;
    const hash = createHash('sha256');
    try {
      const file = await open(making, 'wx', 0o600);
      try {
        for await (const piece of await this.read(sha256, 0, size - 1)) {
          hash.update(piece);
          await file.writeFile(piece);
        }
        await file.sync();
      } finally {
        await file.close();
      }
      if (hash.digest('hex') !== sha256) throw new Error('the store gives another film');
      await rename(making, path);
    } finally {
      await rm(making, { force: true });
    }
  }

  /** Nobody waits again and again for a store that has just not answered. */
  private async asked<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
    if (this.awayUntil !== null && Date.now() < this.awayUntil) throw unanswered();
    try {
      const answer = await ask();
      this.awayUntil = null;
      return answer;
    } catch (error) {
      this.awayUntil = Date.now() + AWAY;
      logTrouble('film store', error);
      throw unanswered();
    }
  }
}

const unanswered = () =>
  new ClipFileError(
    'The store in which the gym’s films are does not answer. No film is lost; try again in a while.',
    503,
  );
