/**
 * Detections as one blob: a header of two 32-bit words (magic "SNW2", count), then per detection its
 * frame (32-bit integer) and its numbers (32-bit floats, as in the core), all little-endian.
 */
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { SEEN_SIZE, type PoseDetection } from '@sinew/core/observe/track/poseDetection';

const MAGIC = 0x32574e53;
const NUMBERS = LANDMARKS.length * SEEN_SIZE;
const HEADER = 8;
const BYTES = 4 + 4 * NUMBERS;

export function encodeDetections(detections: readonly PoseDetection[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEADER + detections.length * BYTES);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, detections.length, true);
  detections.forEach(({ frame, values }, i) => {
    const at = HEADER + i * BYTES;
    view.setUint32(at, frame, true);
    values.forEach((value, k) => view.setFloat32(at + 4 + 4 * k, value, true));
  });
  return bytes;
}

/** @throws RangeError when the blob is not one of ours, is cut short, or holds what is no number */
export function decodeDetections(bytes: Uint8Array): PoseDetection[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEADER || view.getUint32(0, true) !== MAGIC) {
    throw new RangeError('not a blob of pose detections');
  }
  const count = view.getUint32(4, true);
  if (bytes.length !== HEADER + count * BYTES) {
    throw new RangeError('the blob of pose detections is cut short');
  }
  return Array.from({ length: count }, (_, i) => {
    const at = HEADER + i * BYTES;
    const values = new Float32Array(NUMBERS);
    for (let k = 0; k < NUMBERS; k++) values[k] = view.getFloat32(at + 4 + 4 * k, true);
    if (!values.every(Number.isFinite)) throw new RangeError('a detection holds no number');
    return { frame: view.getUint32(at, true), values };
  });
}
