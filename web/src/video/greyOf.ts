/** A decoded picture in grey, as large as it is shown. */
import { greyFrom, type Grey } from '@sinew/core/observe/footage/grey';
import type { Picture } from './frameSource';

/** Layouts whose first plane is brightness. */
const BRIGHTNESS_FIRST = new Set<string | null>(['I420', 'I422', 'I444', 'NV12']);

/** @param picture stays the caller's */
export async function greyOf(picture: Picture): Promise<Grey> {
  return 'format' in picture && isPlain(picture) ? firstPlane(picture) : painted(picture);
}

const isPlain = (frame: VideoFrame) =>
  BRIGHTNESS_FIRST.has(frame.format) &&
  frame.visibleRect?.width === frame.displayWidth &&
  frame.visibleRect.height === frame.displayHeight;

async function firstPlane(frame: VideoFrame): Promise<Grey> {
  const { displayWidth: width, displayHeight: height } = frame;
  const all = new Uint8Array(frame.allocationSize());
  const [plane] = await frame.copyTo(all);
  const { offset, stride } = plane!;
  if (stride === width)
    return { width, height, data: all.subarray(offset, offset + width * height) };
  const data = new Uint8Array(width * height);
  for (let row = 0; row < height; row++) {
    const from = offset + row * stride;
    data.set(all.subarray(from, from + width), row * width);
  }
  return { width, height, data };
}

function painted(picture: Picture): Grey {
  const [width, height] =
    'displayWidth' in picture
      ? [picture.displayWidth, picture.displayHeight]
      : [picture.width, picture.height];
  const context = new OffscreenCanvas(width, height).getContext('2d', {
    willReadFrequently: true,
  })!;
  context.drawImage(picture, 0, 0);
  return greyFrom(context.getImageData(0, 0, width, height).data, width, height);
}
