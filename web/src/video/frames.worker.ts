/** Decodes a clip off the main thread; see `FilmReader` for the side that talks to it. */
import { expose, transfer } from 'comlink';
import { BlobSource, UrlSource } from 'mediabunny';
import { FrameSource, type Picture } from './frameSource';

let source: FrameSource | null = null;

const api = {
  /**
   * @param film an address, or the file itself
   * @param keptBytes how much of the decoded film is kept for going back
   * @returns the presentation times of the clip's frames, seconds
   */
  async open(film: string | Blob, keptBytes?: number): Promise<readonly number[]> {
    const from = typeof film === 'string' ? new UrlSource(film) : new BlobSource(film);
    source = await FrameSource.open(from, keptBytes);
    return source.frameTimes;
  },

  async frame(index: number): Promise<Picture> {
    const picture = await opened().frame(index);
    return transfer(picture, [picture]);
  },

  async prefetch(index: number): Promise<void> {
    await opened().prefetch(index);
  },
};

function opened(): FrameSource {
  if (!source) throw new Error('No clip is open.');
  return source;
}

export type FramesWorker = typeof api;

expose(api);
