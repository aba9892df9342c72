/**
 * Placed points as one blob: a header of two 32-bit words (magic "SNW1", count), then per point
 * landmark index, frame (both as 32-bit integers), x and y (32-bit floats), all little-endian.
 */
import { sql } from 'kysely';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import type { Placed } from '@sinew/core/observe/track/track';

const MAGIC = 0x31574e53;
const BYTES_PER_POINT = 16;

export function encodePlaced(points: readonly Placed[]): Buffer {
  const blob = Buffer.alloc(8 + points.length * BYTES_PER_POINT);
  blob.writeUInt32LE(MAGIC, 0);
  blob.writeUInt32LE(points.length, 4);
  points.forEach((point, i) => {
    const at = 8 + i * BYTES_PER_POINT;
    blob.writeUInt32LE(LANDMARKS.indexOf(point.landmark), at);
    blob.writeUInt32LE(point.frame, at + 4);
    blob.writeFloatLE(point.x, at + 8);
    blob.writeFloatLE(point.y, at + 12);
  });
  return blob;
}

/** @throws Error when the blob is not one of ours or is cut short */
export function decodePlaced(blob: Buffer): Placed[] {
  if (blob.length < 8 || blob.readUInt32LE(0) !== MAGIC) throw new Error('not a blob of points');
  const count = blob.readUInt32LE(4);
  if (blob.length !== 8 + count * BYTES_PER_POINT)
    throw new Error('the blob of points is cut short');
  return Array.from({ length: count }, (_, i) => {
    const at = 8 + i * BYTES_PER_POINT;
    const landmark = LANDMARKS[blob.readUInt32LE(at)];
    if (!landmark) throw new Error('the blob names a landmark that does not exist');
    return {
      landmark,
      frame: blob.readUInt32LE(at + 4),
      x: blob.readFloatLE(at + 8),
      y: blob.readFloatLE(at + 12),
    };
  });
}

export function encodeTimes(times: readonly number[]): Buffer {
  const blob = Buffer.alloc(times.length * 8);
  times.forEach((time, i) => blob.writeDoubleLE(time, i * 8));
  return blob;
}

export function decodeTimes(blob: Buffer): number[] {
  return Array.from({ length: blob.length / 8 }, (_, i) => blob.readDoubleLE(i * 8));
}

/** The instant of a joined mark, out of its clip's times, which may be many thousands; see `contactIn`. */
export const contactAt = sql<Buffer | null>`substr(clip.frame_times, 8 * mark.frame + 1, 8)`.as(
  'contact_at',
);

/** @returns seconds; null where contact is not marked, or lies beyond the film */
export const contactIn = (blob: Buffer | null | undefined): number | null =>
  (blob && decodeTimes(blob)[0]) ?? null;
