/**
 * Where the parts of a film file stand: boxes of MP4 and MOV (ISO/IEC 14496-12, 4.2), elements of
 * Matroska and WebM (RFC 8794, 4 to 6). Only for whole files that a good writer has made.
 */

export interface Part {
  /** The type of a box, or the identifier of an element as hexadecimal digits. */
  readonly name: string;
  /** First byte of its header. */
  readonly start: number;
  /** Where its size stands, and in how many bytes. */
  readonly sizeAt: number;
  readonly sizeBytes: number;
  /** First byte behind its header. */
  readonly from: number;
  /** First byte behind it. */
  readonly to: number;
  /** Holds other parts. */
  readonly isMaster: boolean;
}

/** Every part of a file, masters before what they hold. */
export function partsOf(file: Buffer, isMatroska: boolean): Part[] {
  return isMatroska ? elements(file, 0, file.length) : boxes(file, 0, file.length);
}

const BOX_MASTERS = [
  'moov',
  'trak',
  'mdia',
  'minf',
  'stbl',
  'edts',
  'dinf',
  'mvex',
  'moof',
  'traf',
];

function boxes(file: Buffer, from: number, to: number): Part[] {
  const found: Part[] = [];
  for (let at = from; at + 8 <= to;) {
    const size = file.readUInt32BE(at);
    const name = file.toString('latin1', at + 4, at + 8);
    if (size < 8 || at + size > to) break;
    const isMaster = BOX_MASTERS.includes(name);
    found.push({
      name,
      start: at,
      sizeAt: at,
      sizeBytes: 4,
      from: at + 8,
      to: at + size,
      isMaster,
    });
    if (isMaster) found.push(...boxes(file, at + 8, at + size));
    at += size;
  }
  return found;
}

/** Segment, seek head, its entries, info, tracks and a track with its parts, cues, cluster, group. */
const ELEMENT_MASTERS = ['1a45dfa3', '18538067', '114d9b74', '4dbb', '1549a966', '1654ae6b'].concat(
  ['ae', 'e0', 'e1', '1c53bb6b', 'bb', 'b7', '1f43b675', 'a0'],
);

function elements(file: Buffer, from: number, to: number): Part[] {
  const found: Part[] = [];
  for (let at = from; at < to;) {
    const idBytes = Math.clz32(file[at]!) - 23;
    const sizeAt = at + idBytes;
    const sizeBytes = Math.clz32(file[sizeAt] ?? 0) - 23;
    if (idBytes > 4 || sizeBytes > 8 || sizeAt + sizeBytes > to) break;
    const name = file.toString('hex', at, sizeAt);
    const raw = file.subarray(sizeAt, sizeAt + sizeBytes);
    let size = raw[0]! & (0xff >> sizeBytes);
    for (const byte of raw.subarray(1)) size = size * 256 + byte;
    const start = sizeAt + sizeBytes;
    if (start + size > to) break;
    const isMaster = ELEMENT_MASTERS.includes(name);
    found.push({ name, start: at, sizeAt, sizeBytes, from: start, to: start + size, isMaster });
    if (isMaster) found.push(...elements(file, start, start + size));
    at = start + size;
  }
  return found;
}
