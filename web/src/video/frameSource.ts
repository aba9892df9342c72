/**
 * The frame with a given number, exactly: frames are numbered by their presentation times, decoded
 * in order from a key frame, and told apart by their own timestamps. Forward steps go on decoding
 * where the last one stopped; backward steps are served from the decoded stretch behind.
 */
import {
  ALL_FORMATS,
  EncodedPacketSink,
  Input,
  VideoSampleSink,
  type Source,
  type VideoSample,
} from 'mediabunny';
import { lowerBound } from '@sinew/core/foundation/signal/interpolate';
import { FrameCache } from './frameCache';

const CACHE_BYTES = 320 * 1024 * 1024;
/** Decoding on is cheaper than starting anew at a key frame up to this many frames ahead. */
const GO_ON = 24;

/** The film is sound, and this browser does not play what it is coded as. */
export class Undecodable extends Error {}

/** A decoded picture in memory of our own, so that no decoder waits for its buffers. */
type Kept =
  | { readonly kind: 'planes'; readonly data: ArrayBuffer; readonly init: VideoFrameBufferInit }
  | { readonly kind: 'bitmap'; readonly bitmap: ImageBitmap };

export type Picture = VideoFrame | ImageBitmap;

export class FrameSource {
  private decoding: { samples: AsyncGenerator<VideoSample, void>; next: number } | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  private constructor(
    private readonly sink: VideoSampleSink,
    private readonly times: readonly number[],
    /** Frame numbers of the key frames, ascending. */
    private readonly keys: readonly number[],
    private readonly cache: FrameCache<Kept>,
  ) {}

  /**
   * @param keptBytes how much of the decoded film is kept for going back
   * @throws Error with a message for the coach when the browser cannot decode the film
   */
  static async open(source: Source, keptBytes = CACHE_BYTES): Promise<FrameSource> {
    const input = new Input({ source, formats: ALL_FORMATS });
    const track = await input.getPrimaryVideoTrack();
    if (!track) throw new Error('There is no picture in this clip.');
    if (!(await track.canDecode())) {
      const codec = (await track.getCodec()) ?? 'an unknown code';
      throw new Undecodable(
        `This browser cannot decode ${codec}. The clip is safe; export it as MP4 with H.264 and add that file.`,
      );
    }
    const times: number[] = [];
    const keyTimes: number[] = [];
    const packets = new EncodedPacketSink(track);
    for await (const packet of packets.packets(undefined, undefined, { metadataOnly: true })) {
      times.push(packet.timestamp);
      if (packet.type === 'key') keyTimes.push(packet.timestamp);
    }
    times.sort((a, b) => a - b);
    keyTimes.sort((a, b) => a - b);
    const keys = keyTimes.map((time) => lowerBound(times, time));
    return new FrameSource(
      new VideoSampleSink(track),
      times,
      keys,
      new FrameCache<Kept>(keptBytes),
    );
  }

  get frameTimes(): readonly number[] {
    return this.times;
  }

  /**
   * One frame. Calls are answered in the order they are made.
   *
   * @param index 0 to the number of frames − 1
   * @returns a picture the caller owns and must close
   * @throws Error when the film gives no such frame
   */
  frame(index: number): Promise<Picture> {
    const answer = this.queue.then(() => this.fetch(index).then((kept) => picture(kept)));
    this.queue = answer.catch(() => undefined);
    return answer;
  }

  /** Decode `index` ahead of need, unless it is already there. */
  prefetch(index: number): Promise<void> {
    const job = this.queue.then(async () => {
      if (index >= 0 && index < this.times.length) await this.fetch(index);
    });
    this.queue = job.catch(() => undefined);
    return job;
  }

  private async fetch(index: number): Promise<Kept> {
    const known = this.cache.get(index);
    if (known) return known;
    if (!this.decoding || index < this.decoding.next || index > this.decoding.next + GO_ON) {
      await this.decoding?.samples.return();
      const key = this.keyBefore(index);
      this.decoding = { samples: this.sink.samples(this.times[key]!), next: key };
    }
    const { samples } = this.decoding;
    for (;;) {
      const step = await samples.next();
      if (step.done) break;
      const number = this.numberOf(step.value.timestamp);
      const kept = this.cache.has(number) ? null : await keep(step.value);
      step.value.close();
      this.decoding.next = number + 1;
      if (kept) this.cache.put(number, kept, bytesOf(kept), index);
      if (number === index) return kept ?? this.cache.get(index)!;
      if (number > index) break;
    }
    this.decoding = null;
    throw new Error(`Frame ${index} cannot be decoded: the clip is damaged there.`);
  }

  private keyBefore(index: number): number {
    const after = lowerBound(this.keys, index + 1);
    return this.keys[after - 1] ?? 0;
  }

  private numberOf(timestamp: number): number {
    const right = lowerBound(this.times, timestamp);
    const left = Math.max(0, right - 1);
    if (right >= this.times.length) return left;
    return timestamp - this.times[left]! < this.times[right]! - timestamp ? left : right;
  }
}

/** Layouts of 8 bits that every browser can make a picture of again. */
const COPIED = new Set<string | null>([
  'I420',
  'I422',
  'I444',
  'NV12',
  'RGBA',
  'RGBX',
  'BGRA',
  'BGRX',
]);

async function keep(sample: VideoSample): Promise<Kept> {
  // A turned or mirrored film, or another layout (10 bits, say), is drawn upright once instead.
  if (sample.rotation !== 0 || sample.flip || !COPIED.has(sample.format)) return drawn(sample);
  const frame = sample.toVideoFrame();
  try {
    const data = new ArrayBuffer(frame.allocationSize());
    const layout = await frame.copyTo(data);
    const init: VideoFrameBufferInit = {
      format: frame.format!,
      codedWidth: frame.visibleRect!.width,
      codedHeight: frame.visibleRect!.height,
      displayWidth: frame.displayWidth,
      displayHeight: frame.displayHeight,
      timestamp: frame.timestamp,
      layout,
      colorSpace: frame.colorSpace.toJSON(),
    };
    return { kind: 'planes', data, init };
  } finally {
    frame.close();
  }
}

function drawn(sample: VideoSample): Kept {
  const canvas = new OffscreenCanvas(sample.displayWidth, sample.displayHeight);
  sample.draw(canvas.getContext('2d')!, 0, 0);
  return { kind: 'bitmap', bitmap: canvas.transferToImageBitmap() };
}

function bytesOf(kept: Kept): number {
  return kept.kind === 'planes' ? kept.data.byteLength : kept.bitmap.width * kept.bitmap.height * 4;
}

function picture(kept: Kept): Picture | Promise<Picture> {
  return kept.kind === 'planes'
    ? new VideoFrame(kept.data, kept.init)
    : createImageBitmap(kept.bitmap);
}
