/** Reads worn bands off the main thread; see `readBands.ts` for the side that talks to it. */
import { expose } from 'comlink';
import type { Joints } from '@sinew/core/observe/band/frames';
import { BandReader, type BandFilm, type Read } from '@sinew/core/observe/band/readBands';
import type { Picture } from '../video/frameSource';
import { greyOf } from '../video/greyOf';

let reader: BandReader | null = null;

const api = {
  /** What was seen before is forgotten. */
  begin(film: BandFilm): void {
    reader = new BandReader(film);
  },

  /** @param picture is closed here */
  async see(picture: Picture, time: number, joints: Joints): Promise<void> {
    try {
      begun().see(await greyOf(picture), time, joints);
    } finally {
      picture.close();
    }
  },

  read(): Read {
    return begun().read();
  },
};

function begun(): BandReader {
  if (!reader) throw new Error('No film is being read.');
  return reader;
}

export type BandsWorker = typeof api;

expose(api);
