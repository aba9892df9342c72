/**
 * What a video file holds: read from its tables, without decoding. Runs in the browser before a
 * transfer and on the server after it, so that both say the same.
 */
import { Problem } from '@sinew/core/foundation/problem/problem';
import {
  ALL_FORMATS,
  EncodedPacketSink,
  Input,
  type InputVideoTrack,
  type MetadataTags,
  type Source,
} from 'mediabunny';
import { meanRate } from '@sinew/core/observe/track/time';
import { MOST_FRAMES, type ReadBytes } from './container';
import { isobmffProblem } from './isobmffTables';
import { matroskaProblem } from './matroskaElements';

export interface Film {
  readonly width: number;
  readonly height: number;
  readonly codec: string;
  readonly mimeType: string;
  /** The file's own presentation times, seconds, ascending. */
  readonly frameTimes: readonly number[];
  /** Frames a second at which the file says it was shot, when it is a slow-motion file that tells. */
  readonly shotAt: number | null;
}

/** A file that cannot be used, with a message for the coach. */
export class UnusableFilm extends Problem {
  constructor(happened: string, options?: ErrorOptions) {
    super('refused', { happened }, options);
  }
}

const HOW_TO_CONVERT =
  'Export it as MP4 with H.264 from the phone or camera software, and add that file.';

const DAMAGED = 'This file is damaged: its tables make no sense. Copy it from the camera again.';

const CUT_SHORT =
  'This file is cut short or has no picture: its list of frames is missing. Copy it from the camera again.';

/** A file to look into: as mediabunny reads it, and as bare bytes. */
export interface FilmFile {
  readonly source: Source;
  readonly read: ReadBytes;
  readonly size: number;
}

/** @throws UnusableFilm */
export async function inspectFilm({ source, read, size }: FilmFile): Promise<Film> {
  const problem = (await isobmffProblem(read, size)) ?? (await matroskaProblem(read, size));
  if (problem) throw new UnusableFilm(problem === 'cut short' ? CUT_SHORT : DAMAGED);
  const input = new Input({ source, formats: ALL_FORMATS });
  try {
    if (!(await input.canRead().catch(() => false))) {
      throw new UnusableFilm(
        `This is not a video file Sinew can read (MP4, MOV, WebM or MKV). ${HOW_TO_CONVERT}`,
      );
    }
    const track = await videoTrack(input);
    const codec = await track.getCodec();
    if (codec === null) {
      const name = String((await track.getInternalCodecId()) ?? 'unknown');
      throw new UnusableFilm(
        `This film is coded as “${name}”, which no browser plays. ${HOW_TO_CONVERT}`,
      );
    }
    const { times, soundFrames } = await frames(track);
    if (times.length === 0) throw new UnusableFilm('There is no picture in this file.');
    if (!areTimesPossible(times)) throw new UnusableFilm(DAMAGED);
    if (soundFrames < times.length) {
      throw new UnusableFilm(
        `This file is cut short: it lists ${times.length} frames, but only the first ` +
          `${soundFrames} are there. Copy it from the camera again.`,
      );
    }
    return {
      width: await track.getDisplayWidth(),
      height: await track.getDisplayHeight(),
      codec,
      mimeType: await input.getMimeType(),
      frameTimes: times,
      shotAt: shotAt(await input.getMetadataTags().catch(() => ({})), times),
    };
  } catch (error) {
    if (error instanceof UnusableFilm) throw error;
    throw new UnusableFilm(DAMAGED, { cause: error });
  } finally {
    input.dispose();
  }
}

/** The note that phones leave in a slow-motion file: a number as text or as a 32-bit float. */
const RATE_NOTE = 'com.android.capture.fps';

function shotAt({ raw }: MetadataTags, times: readonly number[]): number | null {
  const note = raw?.[RATE_NOTE];
  const rate =
    note instanceof Uint8Array && note.byteLength === 4
      ? new DataView(note.buffer, note.byteOffset, 4).getFloat32(0)
      : Number(note);
  return rate > meanRate(times) * 1.05 && rate <= 10_000 ? Math.round(rate * 100) / 100 : null;
}

async function videoTrack(input: Input): Promise<InputVideoTrack> {
  const track = await input.getPrimaryVideoTrack();
  if (track) return track;
  const sound = await input.getPrimaryAudioTrack();
  throw new UnusableFilm(sound ? 'There is only sound in this file, no picture.' : CUT_SHORT);
}

/** Longer films are not taken in, seconds; a damaged duration may claim years. */
const LONGEST = 24 * 3600;
/** No camera waits so long from one frame to the next, seconds. */
const LONGEST_GAP = 60;

function areTimesPossible(times: readonly number[]): boolean {
  return times.every(
    (time, i) =>
      Number.isFinite(time) &&
      time - times[0]! <= LONGEST &&
      (i === 0 || time - times[i - 1]! <= LONGEST_GAP),
  );
}

/**
 * Presentation times of all frames, and how many of them (in file order) have their data.
 */
async function frames(track: InputVideoTrack): Promise<{ times: number[]; soundFrames: number }> {
  const sink = new EncodedPacketSink(track);
  const times: number[] = [];
  for await (const packet of sink.packets(undefined, undefined, { metadataOnly: true })) {
    times.push(packet.timestamp);
    if (times.length > MOST_FRAMES) {
      throw new UnusableFilm(DAMAGED);
    }
  }
  times.sort((a, b) => a - b);
  return { times, soundFrames: await countSound(sink, times) };
}

/** A file cut in half still lists all its frames; look for the last one whose data is there. */
async function countSound(sink: EncodedPacketSink, times: readonly number[]): Promise<number> {
  const isThere = async (index: number) => {
    try {
      // The last frame may have no duration, and then nothing is found at its own time.
      const isLast = index === times.length - 1;
      const packet = await sink.getPacket(isLast ? Infinity : times[index]!);
      return (
        packet !== null &&
        packet.data.byteLength > 0 &&
        packet.data.byteLength === packet.byteLength
      );
    } catch {
      return false;
    }
  };
  if (times.length === 0 || (await isThere(times.length - 1))) return times.length;
  let [sound, missing] = [0, times.length - 1];
  while (sound < missing) {
    const middle = (sound + missing) >> 1;
    if (await isThere(middle)) sound = middle + 1;
    else missing = middle;
  }
  return sound;
}
