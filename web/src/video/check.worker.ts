/** Looks inside a file the coach has chosen, before it is transferred. */
import { expose } from 'comlink';
import { BlobSource } from 'mediabunny';
import { FrameSource, Undecodable } from './frameSource';
import { inspectFilm } from './inspect';

export type FileCheck =
  | {
      readonly ok: true;
      readonly width: number;
      readonly height: number;
      readonly codec: string;
      readonly frameTimes: readonly number[];
      readonly shotAt: number | null;
      /** This browser plays it; another one may, or what the server makes of it. */
      readonly isDecodable: boolean;
    }
  | { readonly ok: false; readonly message: string };

const api = {
  /** Tables read. Never throws: the reason is in the answer. */
  inspect(file: File): Promise<FileCheck> {
    return answered(async () => {
      if (file.size === 0) throw new Error('This file is empty: there is no film in it.');
      const { width, height, codec, frameTimes, shotAt } = await inspectFilm({
        source: new BlobSource(file),
        read: async (from, to) => new Uint8Array(await file.slice(from, to).arrayBuffer()),
        size: file.size,
      });
      return { ok: true, width, height, codec, frameTimes, shotAt, isDecodable: true };
    });
  },

  /** First and last frame of an inspected film decoded. Never throws, either. */
  decode(file: File, film: FileCheck & { readonly ok: true }): Promise<FileCheck> {
    return answered(async () => {
      try {
        const frames = await FrameSource.open(new BlobSource(file));
        for (const index of [0, film.frameTimes.length - 1]) (await frames.frame(index)).close();
        return film;
      } catch (error) {
        if (error instanceof Undecodable) return { ...film, isDecodable: false };
        throw error;
      }
    });
  },
};

async function answered(work: () => Promise<FileCheck>): Promise<FileCheck> {
  return work().catch((error: unknown) => ({
    ok: false,
    message: error instanceof Error ? error.message : String(error),
  }));
}

export type CheckWorker = typeof api;

expose(api);
