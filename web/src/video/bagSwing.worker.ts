/** Follows one place on a bag through a film, off the main thread. */
import { expose } from 'comlink';
import { UrlSource } from 'mediabunny';
import { cut, find, type Grey, type Place } from '@sinew/core/train/bag/patch';
import type { SeenAt } from '@sinew/core/train/bag/bag';
import { FrameSource, type Picture } from './frameSource';

/** Pictures are looked at this wide at most; a swing needs no more. */
const WIDEST = 640;
/** Side of the patch and how far it may go from frame to frame, of the picture's width. */
const PATCH = 0.05;
const REACH = 0.03;
/** Less alike than this, and it is something else. */
const ALIKE = 0.5;

const api = {
  /**
   * @param times real time of every frame, seconds
   * @param mark where the place is, pixels of the film, and on which frame
   * @returns where it is on every frame from there on, pixels of the film
   * @throws Error when it is lost
   */
  async follow(
    url: string,
    times: readonly number[],
    mark: Place & { readonly frame: number },
    onProgress: (share: number) => void,
  ): Promise<SeenAt[]> {
    const source = await FrameSource.open(new UrlSource(url));
    const look = greyOf();
    const first = look(await source.frame(mark.frame));
    const scale = first.scale;
    const size = Math.max(9, Math.round(PATCH * first.grey.width));
    let place: Place = { x: mark.x * scale, y: mark.y * scale };
    const patch = cut(first.grey, place, size);
    const reach = Math.max(4, Math.round(REACH * first.grey.width));
    const seen: SeenAt[] = [];
    for (let frame = mark.frame; frame < times.length; frame++) {
      const { grey } = look(await source.frame(frame));
      const found = find(grey, patch, place, reach);
      if (found.likeness < ALIKE) {
        throw new Error(
          `Lost on frame ${frame}: something was in the way. Choose a place that stays in sight.`,
        );
      }
      place = found;
      seen.push({ x: found.x / scale, y: found.y / scale, time: times[frame]!, frame });
      if (frame % 10 === 0) onProgress((frame - mark.frame) / (times.length - mark.frame));
    }
    return seen;
  },
};

function greyOf() {
  let canvas: OffscreenCanvas | null = null;
  return (picture: Picture): { grey: Grey; scale: number } => {
    const [w, h] =
      'displayWidth' in picture
        ? [picture.displayWidth, picture.displayHeight]
        : [picture.width, picture.height];
    const scale = Math.min(1, WIDEST / w);
    const [width, height] = [Math.round(w * scale), Math.round(h * scale)];
    canvas ??= new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(picture, 0, 0, width, height);
    picture.close();
    const { data } = context.getImageData(0, 0, width, height);
    const levels = new Float32Array(width * height);
    // Luma weights of ITU-R BT.601.
    for (let i = 0; i < levels.length; i++) {
      levels[i] = 0.299 * data[4 * i]! + 0.587 * data[4 * i + 1]! + 0.114 * data[4 * i + 2]!;
    }
    return { grey: { width, height, levels }, scale };
  };
}

export type BagSwingWorker = typeof api;

expose(api);
