/** Makes the film of a review off the main thread; see `makeReview` for the side that asks. */
import { expose, transfer } from 'comlink';
import {
  BufferTarget,
  CanvasSource,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
  UrlSource,
} from 'mediabunny';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { FrameSource } from '../frameSource';
import { drawReview, layoutOf } from './drawReview';
import { frameAt, RATE, reviewOf, type Piece, type ReviewOrder } from './plan';

/** What a still gym and a moving student take at 1280 × 720, bits a second; less for a smaller picture. */
const BITRATE = 1_800_000;
const OF_PIXELS = 1280 * 720;

export interface Made {
  /** MP4. */
  readonly bytes: ArrayBuffer;
  /** What is said in it, and when. */
  readonly pieces: readonly Piece[];
}

let isStopped = false;

const worker = {
  /**
   * @param captureRate what the film was shot at where it plays slowly, frames a second
   * @param drawn what shows it, over the whole picture
   * @param onProgress called with a share from 0 to 1
   * @returns null when it was stopped
   * @throws Error in words for the coach
   */
  async make(
    address: string,
    film: { readonly width: number; readonly height: number },
    asked: Omit<ReviewOrder, 'times'>,
    captureRate: number | null,
    drawn: ImageBitmap | null,
    onProgress: (share: number) => void,
  ): Promise<Made | null> {
    isStopped = false;
    const layout = layoutOf(film);
    const codec = await getFirstEncodableVideoCodec(['avc', 'vp9', 'av1'], layout);
    if (!codec) throw new Error('This browser cannot make films. Chromium or Safari can.');
    const source = await FrameSource.open(new UrlSource(address));
    const order = { ...asked, times: realFrameTimes(source.frameTimes, captureRate) };
    const review = reviewOf(order);
    const canvas = new OffscreenCanvas(layout.width, layout.height);
    const context = canvas.getContext('2d', { alpha: false })!;
    const output = new Output({
      format: new Mp4OutputFormat({ fastStart: 'in-memory' }),
      target: new BufferTarget(),
    });
    const pictures = new CanvasSource(canvas, {
      codec,
      bitrate: Math.max(300_000, (BITRATE * layout.width * layout.height) / OF_PIXELS),
      keyFrameInterval: 1,
    });
    output.addVideoTrack(pictures, { frameRate: RATE });
    await output.start();
    const frames = Math.round(review.length * RATE);
    for (let i = 0; i < frames; i++) {
      if (isStopped) {
        await output.cancel();
        return null;
      }
      const at = i / RATE;
      const piece = review.pieces.find((one) => at < one.to) ?? review.pieces.at(-1)!;
      const picture = await source.frame(frameAt(order, review, at));
      drawReview(context, layout, picture, piece, at - piece.from, drawn);
      picture.close();
      await pictures.add(at, 1 / RATE);
      if (i % 6 === 0) onProgress(i / frames);
    }
    await output.finalize();
    const bytes = output.target.buffer!;
    return transfer({ bytes, pieces: review.pieces }, [bytes]);
  },

  stop(): void {
    isStopped = true;
  },
};

export type ReviewWorker = typeof worker;
expose(worker);
