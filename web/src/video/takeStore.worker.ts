/**
 * Takes being recorded, written to the browser's own disk as they come, so that a closed tab loses
 * nothing but the last half second. A take is a fragmented MP4 until it is finalised: its packets
 * copied into a plain MP4 with duration and index, as far as they are whole.
 */
import { expose } from 'comlink';
import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  type InputAudioTrack,
  type InputVideoTrack,
  type StreamTargetChunk,
  type Target,
} from 'mediabunny';
import { takeAboutSchema, type LeftTake, type TakeAbout } from './takeAbout';

const FOLDER = 'takes';
const RAW = '.part';
const MENDED = '.mp4';
const ABOUT = '.json';

const folder = async () =>
  (await navigator.storage.getDirectory()).getDirectoryHandle(FOLDER, { create: true });

const fileHandle = async (name: string) => (await folder()).getFileHandle(name, { create: true });

let open: FileSystemSyncAccessHandle | null = null;

/** Write all of it, or throw as a full disk does. */
function put(handle: FileSystemSyncAccessHandle, data: Uint8Array, at: number): void {
  let written = 0;
  while (written < data.byteLength) {
    const rest = data.subarray(written);
    const count = handle.write(rest, { at: at + written });
    // Chromium answers a full disk with a count that cannot be (−8 read as 32 bits without a sign).
    if (count <= 0 || count > rest.byteLength) {
      throw new DOMException('no room', 'QuotaExceededError');
    }
    written += count;
  }
}

async function remove(id: string): Promise<void> {
  const place = await folder();
  for (const ending of [RAW, MENDED, ABOUT]) {
    await place.removeEntry(id + ending).catch(() => undefined);
  }
}

const api = {
  async begin(id: string, about: TakeAbout): Promise<void> {
    const note = await (await fileHandle(id + ABOUT)).createSyncAccessHandle();
    try {
      put(note, new TextEncoder().encode(JSON.stringify(about)), 0);
    } finally {
      note.close();
    }
    open = await (await fileHandle(id + RAW)).createSyncAccessHandle();
  },

  write({ data, position }: StreamTargetChunk): void {
    if (!open) throw new Error('no take is being recorded');
    put(open, data, position);
    open.flush();
  },

  end(): void {
    open?.close();
    open = null;
  },

  /** @returns the take as a plain MP4; null when not a single frame of it is whole */
  async mend(id: string): Promise<File | null> {
    const place = await folder();
    const done = await place.getFileHandle(id + MENDED).catch(() => null);
    if (done) {
      const file = await done.getFile();
      if (file.size > 0) return file;
    }
    const raw = await (await place.getFileHandle(id + RAW)).getFile();
    try {
      return await finalisedOnDisk(place, id, raw);
    } catch (error) {
      if (!isFull(error)) throw error;
      // No room for a second copy: the plain film is made in memory, and the raw one stays.
      await place.removeEntry(id + MENDED).catch(() => undefined);
      return finalisedInMemory(raw);
    }
  },

  /** Takes that are neither kept nor thrown away, of tabs that are gone; newest first. */
  async left(): Promise<LeftTake[]> {
    const place = await folder();
    const found: LeftTake[] = [];
    for await (const [name, handle] of place.entries()) {
      if (handle.kind !== 'file' || !name.endsWith(ABOUT)) continue;
      const id = name.slice(0, -ABOUT.length);
      if (await isBeingRecorded(place, id)) continue;
      const about = noted(await (await handle.getFile()).text());
      // A note cut short belongs to a take that never began; it must not hide the others.
      if (about) found.push({ id, about });
    }
    return found.sort((a, b) => b.about.startedAt.localeCompare(a.about.startedAt));
  },

  remove,
};

const isFull = (error: unknown) => (error as { name?: string }).name === 'QuotaExceededError';

async function finalisedOnDisk(
  place: FileSystemDirectoryHandle,
  id: string,
  raw: File,
): Promise<File | null> {
  const handle = await (await fileHandle(id + MENDED)).createSyncAccessHandle();
  const target = new StreamTarget(
    new WritableStream<StreamTargetChunk>({
      write: ({ data, position }) => put(handle, data, position),
    }),
  );
  let isWhole = false;
  try {
    isWhole = await rewritten(raw, target);
    handle.flush();
  } finally {
    handle.close();
  }
  if (!isWhole) {
    await place.removeEntry(id + MENDED);
    return null;
  }
  const file = await (await fileHandle(id + MENDED)).getFile();
  await place.removeEntry(id + RAW);
  return file;
}

async function finalisedInMemory(raw: File): Promise<File | null> {
  const target = new BufferTarget();
  const isWhole = await rewritten(raw, target);
  return isWhole && target.buffer ? new File([target.buffer], 'take.mp4') : null;
}

function noted(text: string): TakeAbout | null {
  try {
    return takeAboutSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** Another tab holds the only key to a file that it is writing. */
async function isBeingRecorded(place: FileSystemDirectoryHandle, id: string): Promise<boolean> {
  const raw = await place.getFileHandle(id + RAW).catch(() => null);
  if (!raw) return false;
  try {
    (await raw.createSyncAccessHandle()).close();
    return false;
  } catch {
    return true;
  }
}

/** @returns whether at least one frame could be copied */
async function rewritten(raw: File, target: Target): Promise<boolean> {
  const input = new Input({ source: new BlobSource(raw), formats: ALL_FORMATS });
  try {
    const video = await input.getPrimaryVideoTrack().catch(() => null);
    if (!video) return false;
    const audio = await input.getPrimaryAudioTrack().catch(() => null);
    const output = new Output({
      format: new Mp4OutputFormat({ fastStart: false }),
      target,
    });
    const copies = [await videoCopy(video, output)];
    if (audio) copies.push(await audioCopy(audio, output));
    await output.start();
    const [frames] = await Promise.all(copies.map((copy) => copy()));
    if (frames === 0) {
      await output.cancel();
      return false;
    }
    await output.finalize();
    return true;
  } finally {
    input.dispose();
  }
}

async function videoCopy(track: InputVideoTrack, output: Output): Promise<() => Promise<number>> {
  const codec = await track.getCodec();
  const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
  if (!codec) throw new Error('the take has no known code');
  const source = new EncodedVideoPacketSource(codec);
  output.addVideoTrack(source, { rotation: await track.getRotation() });
  return () =>
    copied(track, (packet, isFirst) => source.add(packet, isFirst ? { decoderConfig } : undefined));
}

async function audioCopy(track: InputAudioTrack, output: Output): Promise<() => Promise<number>> {
  const codec = await track.getCodec();
  const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
  if (!codec) throw new Error('the take’s sound has no known code');
  const source = new EncodedAudioPacketSource(codec);
  output.addAudioTrack(source);
  return () =>
    copied(track, (packet, isFirst) => source.add(packet, isFirst ? { decoderConfig } : undefined));
}

type Packet = NonNullable<Awaited<ReturnType<EncodedPacketSink['getFirstPacket']>>>;

/** Copies packets up to the first that is not whole. */
async function copied(
  track: InputVideoTrack | InputAudioTrack,
  add: (packet: Packet, isFirst: boolean) => Promise<void>,
): Promise<number> {
  const sink = new EncodedPacketSink(track);
  let count = 0;
  let duration = 0;
  let packet = await sink.getFirstPacket().catch(() => null);
  while (packet && packet.byteLength > 0 && packet.data.byteLength === packet.byteLength) {
    // How long the last one lasts was not known when it was written; as long as the one before.
    if (packet.duration > 0) duration = packet.duration;
    await add(packet.duration > 0 ? packet : packet.clone({ duration }), count === 0);
    count += 1;
    packet = await sink.getNextPacket(packet).catch(() => null);
  }
  return count;
}

export type TakeStoreWorker = typeof api;

expose(api);
