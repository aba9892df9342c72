/**
 * Whether the top elements of a Matroska or WebM file follow each other without a gap. A reader that
 * finds something else between them looks for the next one it knows, and may look for ever.
 *
 * Source: RFC 8794 (EBML), 4 and 5; RFC 9559 (Matroska), 5.1.
 */
import { viewOf, type ContainerProblem, type ReadBytes } from './container';

const EBML = 0x1a45dfa3;
const SEGMENT = 0x18538067;
const CLUSTER = 0x1f43b675;
/** SeekHead, Info, Tracks, Cues, Cluster, Chapters, Tags, Attachments, Void, CRC-32. */
const TOP = new Set([
  ...[0x114d9b74, 0x1549a966, 0x1654ae6b, 0x1c53bb6b, CLUSTER],
  ...[0x1043a770, 0x1254c367, 0x1941a469, 0xec, 0xbf],
]);
/** Timestamp, SilentTracks, Position, PrevSize, SimpleBlock, BlockGroup, EncryptedBlock, Void, CRC-32. */
const IN_CLUSTER = new Set([0xe7, 0x5854, 0xa7, 0xab, 0xa3, 0xa0, 0xaf, 0xec, 0xbf]);
const LONGEST_HEADER = 12;

interface Element {
  readonly id: number;
  /** First byte behind the header. */
  readonly from: number;
  /** First byte behind the element; null when the file does not say. */
  readonly to: number | null;
}

/** @returns null also for files that are not Matroska or WebM, of which nothing is known */
export async function matroskaProblem(
  read: ReadBytes,
  size: number,
): Promise<ContainerProblem | null> {
  const elementAt = async (at: number) =>
    headerOf(viewOf(await read(at, Math.min(size, at + LONGEST_HEADER))), at);
  const head = await elementAt(0);
  if (head?.id !== EBML) return null;
  const segment = head.to === null ? null : await elementAt(head.to);
  if (segment?.id !== SEGMENT) return 'senseless';
  const end = Math.min(size, segment.to ?? size);
  let isInOpenCluster = false;
  for (let at = segment.from; at < end;) {
    const element = await elementAt(at);
    if (!element) return at + LONGEST_HEADER > size ? 'cut short' : 'senseless';
    const isTop = TOP.has(element.id);
    if (!isTop && !(isInOpenCluster && IN_CLUSTER.has(element.id))) return 'senseless';
    if (isTop) isInOpenCluster = element.id === CLUSTER && element.to === null;
    if (element.to === null && element.id !== CLUSTER) return 'senseless';
    // A cluster of unknown size is gone through by what it holds.
    at = element.to ?? element.from;
  }
  return null;
}

/** The element whose header begins a view; null where there is none. */
function headerOf(data: DataView, at: number): Element | null {
  if (data.byteLength === 0) return null;
  const idBytes = Math.clz32(data.getUint8(0)) - 23;
  if (idBytes > 4 || idBytes >= data.byteLength) return null;
  let id = 0;
  for (let i = 0; i < idBytes; i++) id = id * 256 + data.getUint8(i);
  const first = data.getUint8(idBytes);
  const sizeBytes = Math.clz32(first) - 23;
  if (sizeBytes > 8 || idBytes + sizeBytes > data.byteLength) return null;
  const from = at + idBytes + sizeBytes;
  let size = first & (0xff >> sizeBytes);
  let isUnknown = size === 0xff >> sizeBytes;
  for (let i = 1; i < sizeBytes; i++) {
    const byte = data.getUint8(idBytes + i);
    size = size * 256 + byte;
    isUnknown &&= byte === 0xff;
  }
  return { id, from, to: isUnknown ? null : from + size };
}
