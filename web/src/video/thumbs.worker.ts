/** One small picture out of a film: its head is read, and no more than leads up to that picture. */
import { expose, transfer } from 'comlink';
import { ALL_FORMATS, BlobSource, CanvasSink, Input, UrlSource } from 'mediabunny';

const WIDTH = 224;

/**
 * @param film an address, or the file itself
 * @param time seconds on the film's own clock; the middle of the film where there is none
 * @returns null where this browser cannot decode the film
 */
async function thumb(film: string | Blob, time: number | null): Promise<ImageBitmap | null> {
  const source = typeof film === 'string' ? new UrlSource(film) : new BlobSource(film);
  const input = new Input({ source, formats: ALL_FORMATS });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track || !(await track.canDecode())) return null;
    const at = time ?? (await track.computeDuration()) / 2;
    const sink = new CanvasSink(track, { width: WIDTH });
    const drawn = await sink.getCanvas(Math.max(at, await track.getFirstTimestamp()));
    if (!drawn) return null;
    const picture = await createImageBitmap(drawn.canvas);
    return transfer(picture, [picture]);
  } finally {
    input.dispose();
  }
}

const worker = { thumb };
export type ThumbsWorker = typeof worker;
expose(worker);
