/**
 * Whether the frame tables of an MP4 or MOV file agree with each other, before anything is built
 * from them: a single wrong byte in a run length can claim billions of frames, and a reader that
 * believes it never comes back. Every count is held to the size of its box and to the most frames a
 * film may have, before any loop over it.
 *
 * Source: ISO/IEC 14496-12, boxes stsz, stz2, stts, ctts, stss, stsc, stco, co64 and elst (8.6,
 * 8.7), tfhd, trun and tfra (8.8).
 */
import { MOST_FRAMES, viewOf, type ContainerProblem, type ReadBytes } from './container';

const CONTAINERS = new Set([
  'moov',
  'trak',
  'mdia',
  'minf',
  'stbl',
  'edts',
  'moof',
  'traf',
  'mfra',
]);
/** Whether its entries lie inside a box, where that does not depend on other boxes. */
const LONE_BOXES: Readonly<Record<string, (data: DataView, box: Box) => boolean>> = {
  elst: editsFit,
  trun: runFits,
  tfra: accessFits,
};

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

/** Larger tables than any film has are not read, bytes. */
const LARGEST = 256 * 1024 * 1024;

interface Box {
  readonly type: string;
  /** Its contents behind the header. */
  readonly from: number;
  readonly to: number;
}

/** @returns null also for files that are not MP4 or MOV, of which nothing is known */
export async function isobmffProblem(
  read: ReadBytes,
  size: number,
): Promise<ContainerProblem | null> {
  let at = 0;
  let fragmentFrames = 0;
  let isCutShort = false;
  while (at + 8 <= size) {
    const box = boxAt(viewOf(await read(at, Math.min(size, at + 16))), 0, size - at);
    if (!box) return null;
    if (at + box.to > size) isCutShort ||= box.type === 'moov';
    else if (CONTAINERS.has(box.type)) {
      if (box.to > LARGEST) return 'senseless';
      const bytes = viewOf(await read(at + box.from, at + box.to));
      if (!boxesAgree(bytes, 0, bytes.byteLength, size)) return 'senseless';
      if (box.type === 'moof') fragmentFrames += framesIn(bytes, 0, bytes.byteLength);
      if (fragmentFrames > MOST_FRAMES) return 'senseless';
    }
    at += box.to;
  }
  return isCutShort ? 'cut short' : null;
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

function boxesIn(data: DataView, from: number, to: number): Box[] {
  const boxes: Box[] = [];
  for (let box = boxAt(data, from, to); box; box = boxAt(data, box.to, to)) boxes.push(box);
  return boxes;
}

function boxesAgree(data: DataView, from: number, to: number, fileSize: number): boolean {
  const boxes = boxesIn(data, from, to);
  const find = (...types: string[]) => boxes.find(({ type }) => types.includes(type));
  const sizes = find('stsz', 'stz2');
  const count = sizes ? sampleCount(data, sizes, fileSize) : null;
  const chunks = find('stco', 'co64');
  return boxes.every((box) => {
    if (CONTAINERS.has(box.type)) {
      return boxesAgree(data, box.from, Math.min(box.to, to), fileSize);
    }
    const isLoneSound = LONE_BOXES[box.type]?.(data, box) ?? true;
    const table = TABLES[box.type];
    if (table === undefined) return isLoneSound;
    return (
      count !== null &&
      tableFits(data, box, table, count) &&
      (box.type !== 'stsc' || chunksAgree(data, box, chunks ? data.getUint32(chunks.from + 4) : 0))
    );
  });
}

/** How many frames (or sounds) the sizes are listed for; null when the list cannot be true. */
function sampleCount(data: DataView, box: Box, fileSize: number): number | null {
  const { type, from, to } = box;
  if (from + 12 > data.byteLength) return null;
  const count = data.getUint32(from + 8);
  if (type === 'stz2') {
    const bits = data.getUint8(from + 7);
    const isField = bits === 4 || bits === 8 || bits === 16;
    return isField && from + 12 + Math.ceil((count * bits) / 8) <= to ? count : null;
  }
  const each = data.getUint32(from + 4);
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

/**
 * The runs of chunks begin with the first chunk, one behind the other, none behind the last chunk,
 * and no chunk is empty. The entries are known to lie inside the box.
 */
function chunksAgree(data: DataView, { from }: Box, chunkCount: number): boolean {
  const entries = data.getUint32(from + 4);
  let before = 0;
  for (let i = 0; i < entries; i++) {
    const at = from + 8 + 12 * i;
    const first = data.getUint32(at);
    if (i === 0 ? first !== 1 : first <= before || first > chunkCount) return false;
    if (data.getUint32(at + 4) === 0) return false;
    before = first;
  }
  return true;
}

function editsFit(data: DataView, { from, to }: Box): boolean {
  if (from + 8 > Math.min(to, data.byteLength)) return false;
  const bytes = data.getUint8(from) === 1 ? 20 : 12;
  return from + 8 + bytes * data.getUint32(from + 4) <= to;
}

/** Flags of a run that say which fields each of its frames has, four bytes each. */
const PER_FRAME = [0x100, 0x200, 0x400, 0x800];
/** Flags of a run that say which fields stand once before its frames, four bytes each. */
const BEFORE_FRAMES = [0x1, 0x4];

function runFits(data: DataView, { from, to }: Box): boolean {
  if (from + 8 > Math.min(to, data.byteLength)) return false;
  const flags = data.getUint32(from) & 0xffffff;
  const has = (bits: readonly number[]) => bits.filter((bit) => (flags & bit) !== 0).length;
  const count = data.getUint32(from + 4);
  return count <= MOST_FRAMES && from + 8 + 4 * (has(BEFORE_FRAMES) + count * has(PER_FRAME)) <= to;
}

function accessFits(data: DataView, { from, to }: Box): boolean {
  if (from + 16 > Math.min(to, data.byteLength)) return false;
  const lengths = data.getUint32(from + 8);
  const numbers = [4, 2, 0].reduce((sum, shift) => sum + ((lengths >> shift) & 3) + 1, 0);
  const bytes = (data.getUint8(from) === 1 ? 16 : 8) + numbers;
  return from + 16 + bytes * data.getUint32(from + 12) <= to;
}

/** Frames and sounds that the runs of a fragment claim. */
function framesIn(data: DataView, from: number, to: number): number {
  return boxesIn(data, from, to).reduce((sum, box) => {
    if (box.type === 'traf') return sum + framesIn(data, box.from, Math.min(box.to, to));
    return box.type === 'trun' ? sum + data.getUint32(box.from + 4) : sum;
  }, 0);
}
