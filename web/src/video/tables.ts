/**
 * Whether the frame tables of an MP4 or MOV file agree with each other, before anything is built
 * from them: a single wrong byte in a run length can claim billions of frames, and a reader that
 * believes it never comes back.
 *
 * Source: ISO/IEC 14496-12, boxes stsz, stts, ctts, stss, stsc, stco and co64 (8.6, 8.7).
 */

/** Bytes `from` to `to` (not included) of a file. */
export type ReadBytes = (from: number, to: number) => Promise<Uint8Array>;

const CONTAINERS = new Set(['moov', 'trak', 'mdia', 'minf', 'stbl']);
interface Table {
  /** Of one entry. */
  readonly bytes: number;
  /** Where in an entry a number of frames stands. */
  readonly counts?: number;
  /** Together the entries cover each frame once. */
  readonly isRun?: boolean;
}

const TABLES: Readonly<Record<string, Table>> = {
  stts: { bytes: 8, counts: 0, isRun: true },
  ctts: { bytes: 8, counts: 0, isRun: true },
  stss: { bytes: 4, counts: 0 },
  stsc: { bytes: 12, counts: 4 },
  stco: { bytes: 4 },
  co64: { bytes: 8 },
};

/** Larger tables than any film has are not read. */
const LARGEST = 256 * 1024 * 1024;

interface Box {
  readonly type: string;
  /** Its contents behind the header. */
  readonly from: number;
  readonly to: number;
}

/** @returns null also for files that are not MP4 or MOV, of which nothing is known */
export async function tablesProblem(
  read: ReadBytes,
  size: number,
): Promise<'cut short' | 'senseless' | null> {
  let at = 0;
  while (at + 8 <= size) {
    const head = view(await read(at, Math.min(size, at + 16)));
    const box = boxAt(head, 0, size - at);
    if (!box) return null;
    if (box.type === 'moov') {
      if (at + box.to > size) return 'cut short';
      if (box.to > LARGEST) return 'senseless';
      const bytes = await read(at + box.from, at + box.to);
      return tracksAgree(view(bytes), 0, bytes.length, size) ? null : 'senseless';
    }
    at += box.to;
  }
  return null;
}

function view(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

/** The box whose header starts at `at`, or null where there is none. */
function boxAt(data: DataView, at: number, end: number): Box | null {
  if (at + 8 > Math.min(end, data.byteLength)) return null;
  const type = String.fromCharCode(...[4, 5, 6, 7].map((i) => data.getUint8(at + i)));
  const short = data.getUint32(at);
  if (!/^[\x20-\x7e\xa9]{4}$/.test(type)) return null;
  if (short === 0) return { type, from: at + 8, to: end };
  const isLong = short === 1 && at + 16 <= data.byteLength;
  const length = isLong ? Number(data.getBigUint64(at + 8)) : short;
  if (length < (isLong ? 16 : 8)) return null;
  return { type, from: at + (isLong ? 16 : 8), to: at + length };
}

function tracksAgree(data: DataView, from: number, to: number, fileSize: number): boolean {
  const boxes: Box[] = [];
  for (let box = boxAt(data, from, to); box; box = boxAt(data, box.to, to)) boxes.push(box);
  const samples = boxes.find((box) => box.type === 'stsz');
  const count = samples ? sampleCount(data, samples, fileSize) : null;
  return boxes.every((box) => {
    if (CONTAINERS.has(box.type))
      return tracksAgree(data, box.from, Math.min(box.to, to), fileSize);
    const table = TABLES[box.type];
    return table === undefined || (count !== null && tableFits(data, box, table, count));
  });
}

/** How many frames (or sounds) the sizes are listed for; null when the list cannot be true. */
function sampleCount(data: DataView, { from, to }: Box, fileSize: number): number | null {
  if (from + 12 > data.byteLength) return null;
  const each = data.getUint32(from + 4);
  const count = data.getUint32(from + 8);
  const isTrue = each === 0 ? from + 12 + 4 * count <= to : each * count <= fileSize;
  return isTrue ? count : null;
}

/** All entries lie inside the box, and what they count is no more than there is. */
function tableFits(data: DataView, { from, to }: Box, table: Table, count: number): boolean {
  const end = Math.min(to, data.byteLength);
  if (from + 8 > end) return false;
  const entries = data.getUint32(from + 4);
  if (from + 8 + table.bytes * entries > end) return false;
  let total = 0;
  for (let i = 0; i < entries; i++) {
    const at = from + 8 + table.bytes * i;
    const value = table.counts === undefined ? 0 : data.getUint32(at + table.counts);
    if (value > count) return false;
    total += value;
  }
  return table.isRun !== true || total <= count;
}
