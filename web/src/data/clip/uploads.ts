/**
 * Films on their way over bad Wi-Fi: sent in pieces that can break off at any byte and go on there, by the
 * tus protocol (tus.io, 1.0) through its own server. A film is a clip only when it is here whole and its
 * hash is the one that the phone has worked out.
 */
import { mkdir, statfs } from 'node:fs/promises';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { nanoid } from 'nanoid';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { dataFolder } from '../database/dataFolder';
import { database } from '../database/database';
import { studentById } from '../student/students';
import { reserve } from '../film/clipFiles';

/** Bytes; longer films are cut before they are sent. */
export const LARGEST = 4 * 1024 ** 3;
export const UPLOADS = '/api/uploads';

const isUploadId = (id: string) => /^[\w-]{21}$/.test(id);

const folderOf = (data: string) => join(data, 'uploads');

interface Held {
  readonly folder: string;
  readonly server: Server;
  readonly store: FileStore;
}
const shared = globalThis as { sinewUploads?: Held };

async function held(): Promise<Held> {
  const folder = folderOf(dataFolder());
  if (shared.sinewUploads?.folder === folder) return shared.sinewUploads;
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const store = new FileStore({ directory: folder });
  const server = new Server({
    path: UPLOADS,
    datastore: store,
    maxSize: LARGEST,
    relativeLocation: true,
    namingFunction: () => nanoid(),
    onUploadCreate: async (_, { size, metadata }) => {
      await mustBeWanted(folder, metadata?.student ?? '', size ?? 0);
      return {};
    },
    // The reason of a refusal goes to the phone as Sinew tells it.
    onResponseError: (_, error) =>
      error instanceof Refused ? { status_code: error.status_code, body: error.body } : undefined,
  });
  shared.sinewUploads = { folder, server, store };
  return shared.sinewUploads;
}

class Refused extends Error {
  constructor(
    readonly status_code: number,
    readonly body: string,
  ) {
    super(body);
  }
}

/** Said before a byte is sent. */
async function mustBeWanted(folder: string, studentId: string, size: number): Promise<void> {
  const student = await studentById(await database(), studentId);
  if (!student) throw new Refused(404, 'This student is not in the gym’s list any more.');
  if (!student.consent) throw new Refused(403, `${student.name} has no consent to be filmed.`);
  const { bavail, bsize } = await statfs(folder);
  // It lies here twice for a moment: as it came, and as the clip that it becomes.
  if (bavail * bsize - 2 * size < reserve()) {
    throw new Refused(507, 'The disk of the gym’s machine is full. Nothing was sent.');
  }
}

/** One step of the protocol. */
export async function uploadStep(request: Request): Promise<Response> {
  const { server } = await held();
  return server.handleWeb(request as Parameters<Server['handleWeb']>[0]);
}

export interface Arrived {
  readonly stream: ReadableStream<Uint8Array>;
  readonly bytes: number;
  readonly about: Readonly<Record<string, string | null>>;
  /** It is a clip now, or never will be. */
  forget(): Promise<void>;
}

/**
 * A film that has come whole.
 *
 * @returns null when nothing is known of it: it never was, or is a clip already
 * @throws Problem `refused` when bytes of it are still missing
 */
export async function arrived(id: string): Promise<Arrived | null> {
  if (!isUploadId(id)) return null;
  const { store, folder } = await held();
  const upload = await store.getUpload(id).catch(() => null);
  if (!upload) return null;
  if (upload.size === undefined || upload.offset !== upload.size) {
    throw new Problem('refused', {
      happened: 'This film has not come whole yet.',
      safe: 'What has come is kept.',
      todo: 'Let it go on.',
    });
  }
  const path = join(folder, id);
  return {
    stream: Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>,
    bytes: upload.size,
    about: upload.metadata ?? {},
    forget: () => store.remove(id).catch(() => undefined),
  };
}
