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
import { FrameSource } from '../frameSource';
import { drawReview, sizeOf, type Shapes } from './drawReview';
import { frameAt, RATE, reviewOf, type ReviewOrder } from './plan';

/** What a still gym and a moving student take at 1280 × 720, bits a second; less for a smaller picture. */
const BITRATE = 1_800_000;
const OF_PIXELS = 1280 * 720;

let isStopped = false;

const worker = {
  /**
   * @param onProgress called with a share from 0 to 1
   * @returns the film, MP4; null when it was stopped
   * @throws Error in words for the coach
   */
  async make(
    address: string,
    film: { readonly width: number; readonly height: number },
    order: ReviewOrder,
    shapes: Shapes,
    onProgress: (share: number) => void,
  ): Promise<ArrayBuffer | null> {
    isStopped = false;
    const review = reviewOf(order);
    const size = sizeOf(film);
    const codec = await getFirstEncodableVideoCodec(['avc', 'vp9', 'av1'], size);
    if (!codec) throw new Error('This browser cannot make films. Chromium or Safari can.');
    const source = await FrameSource.open(new UrlSource(address));
    const canvas = new OffscreenCanvas(size.width, size.height);
    const context = canvas.getContext('2d', { alpha: false })!;
    const output = new Output({
      format: new Mp4OutputFormat({ fastStart: 'in-memory' }),
      target: new BufferTarget(),
    });
    const pictures = new CanvasSource(canvas, {
      codec,
      bitrate: Math.max(300_000, (BITRATE * size.width * size.height) / OF_PIXELS),
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
      drawReview(context, picture, film, piece, at - piece.from, shapes);
      picture.close();
      await pictures.add(at, 1 / RATE);
      if (i % 6 === 0) onProgress(i / frames);
    }
    await output.finalize();
    const { buffer } = output.target;
    return buffer && transfer(buffer, [buffer]);
  },

  stop(): void {
    isStopped = true;
  },
};

export type ReviewWorker = typeof worker;
expose(worker);
