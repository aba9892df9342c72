/**
 * The last seconds of a take while it is still being recorded, to be seen again at once. Kept as they were
 * encoded, a few hundred kilobytes a second, and decoded when somebody asks.
 */
import type { EncodedPacket } from 'mediabunny';

/** Seconds kept: the longest replay, and the key frame before it. */
const KEPT = 5;
/** Decoded pictures held at once; more of them starve a phone's decoder. */
const HELD = 3;

export class RecentFilm {
  private packets: EncodedPacket[] = [];
  private config: VideoDecoderConfig | null = null;
  /** Milliseconds of the page's clock at the take's own beginning: the least that any frame has said. */
  private begin = Infinity;

  /** @param packet as the encoder gives it, in order */
  keep(packet: EncodedPacket, meta?: EncodedVideoChunkMetadata): void {
    this.config = meta?.decoderConfig ?? this.config;
    // Some time goes by until a frame is encoded; the quickest one was hardly late.
    this.begin = Math.min(this.begin, performance.now() - 1000 * packet.timestamp);
    this.packets.push(packet);
    const old = this.packets.findLastIndex(
      ({ type, timestamp }) => type === 'key' && timestamp < packet.timestamp - KEPT,
    );
    if (old > 0) this.packets.splice(0, old);
  }

  /** Seconds of the take at an instant of the page's clock, milliseconds. */
  timeAt(instant: number): number {
    return (instant - this.begin) / 1000;
  }

  /** Seconds of the take that have come; −∞ before the first frame. */
  get until(): number {
    return this.packets.at(-1)?.timestamp ?? -Infinity;
  }

  /**
   * The frames of a stretch, one after the other, as fast as they are taken. Whoever takes one closes it.
   *
   * @param from seconds of the take; what is not kept any more is left out
   * @throws Error when this browser cannot decode what it has encoded
   */
  async *frames(from: number, to: number): AsyncGenerator<VideoFrame> {
    const first = this.packets.findLastIndex(
      ({ type, timestamp }) => type === 'key' && timestamp <= from,
    );
    const wanted = this.packets
      .slice(first < 0 ? this.packets.findIndex(({ type }) => type === 'key') : first)
      .filter(({ timestamp }) => timestamp <= to);
    if (!this.config || wanted.length === 0) return;
    const decoded: VideoFrame[] = [];
    const state = { isDone: false, failure: null as Error | null, wake: () => {} };
    const fail = (error: Error) => {
      state.failure ??= error;
      state.wake();
    };
    const decoder = new VideoDecoder({
      output: (frame) => {
        decoded.push(frame);
        state.wake();
      },
      error: fail,
    });
    decoder.configure({ ...this.config, optimizeForLatency: true });
    decoder.ondequeue = () => state.wake();
    const end = () => {
      state.isDone = true;
      state.wake();
    };
    let isFlushing = false;
    const feed = () => {
      while (wanted.length > 0 && decoder.decodeQueueSize + decoded.length < HELD) {
        decoder.decode(wanted.shift()!.toEncodedVideoChunk());
      }
      if (wanted.length > 0 || isFlushing) return;
      isFlushing = true;
      decoder.flush().then(end, fail);
    };
    try {
      for (;;) {
        if (state.failure) throw state.failure;
        feed();
        const frame = decoded.shift();
        if (frame && frame.timestamp / 1e6 >= from - 1e-6) yield frame;
        else if (frame) frame.close();
        else if (state.isDone) return;
        else await new Promise<void>((resolve) => (state.wake = resolve));
      }
    } finally {
      for (const frame of decoded) frame.close();
      if (decoder.state !== 'closed') decoder.close();
    }
  }
}
