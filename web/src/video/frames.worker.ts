/** Decodes a clip off the main thread; see `FilmReader` for the side that talks to it. */
import { expose, transfer } from 'comlink';
import { UrlSource } from 'mediabunny';
import { FrameSource, type Picture } from './frameSource';

let source: FrameSource | null = null;

const api = {
  /** @returns the presentation times of the clip's frames, seconds */
  async open(url: string): Promise<readonly number[]> {
    source = await FrameSource.open(new UrlSource(url));
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
