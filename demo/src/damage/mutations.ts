/**
 * A film file with one to three wrongs in it, placed where its structure is: a number, a size, a
 * name, a part that is missing, doubled or moved. The same seed gives the same film.
 */
import { partsOf, type Part } from './parts';

/** Numbers at which readers stumble: ends of ranges, their neighbours, sign bits. */
const NUMBERS = [0, 1, 2, 7, 0xff, 0x7fff, 0xffff, 0x10000, 0xffffff, 0x7ffffffe].concat([
  ...[0x7fffffff, 0x80000000, 0x80000001, 0xfffffffe, 0xffffffff],
]);
/** Contents larger than this are pictures and sound, which nothing is read from. */
const LARGEST_TABLE = 4096;

export interface Damaged {
  readonly film: Buffer;
  /** What was done, for the one who looks for the reason. */
  readonly deeds: readonly string[];
}

export function damaged(whole: Buffer, isMatroska: boolean, random: () => number): Damaged {
  const below = (n: number) => Math.floor(random() * n);
  const one = <T>(list: readonly T[]): T => list[below(list.length)]!;
  const deeds: string[] = [];
  let film: Buffer = Buffer.from(whole);
  for (let left = 1 + below(3); left > 0; left--) {
    const parts = partsOf(film, isMatroska);
    if (parts.length === 0) break;
    const part = one(parts);
    const leaves = parts.filter(({ isMaster, from, to }) => !isMaster && to > from);
    const deed = one([...DEEDS, ...DEEDS.filter(({ name }) => name === 'number')]);
    const chosen = deed.name === 'number' && leaves.length > 0 ? one(leaves) : part;
    film = deed.apply(film, chosen, { parts, below, one });
    deeds.push(`${deed.name} ${chosen.name} at ${chosen.start}`);
  }
  return { film, deeds };
}

interface Choice {
  readonly parts: readonly Part[];
  readonly below: (n: number) => number;
  readonly one: <T>(list: readonly T[]) => T;
}

interface Deed {
  readonly name: string;
  apply(film: Buffer, part: Part, choice: Choice): Buffer;
}

const without = (film: Buffer, { start, to }: Part) =>
  Buffer.concat([film.subarray(0, start), film.subarray(to)]);

const DEEDS: readonly Deed[] = [
  {
    name: 'number',
    apply(film, { from, to }, { below, one }) {
      const width = one([1, 2, 4, 4, 4, 8]);
      const room = Math.min(to, from + LARGEST_TABLE) - from - width;
      if (room < 0) return film;
      // Fields stand at multiples of two or four from the head of their part.
      const step = Math.min(width, 4);
      const at = from + step * below(Math.floor(room / step) + 1);
      const value = one(NUMBERS);
      if (width === 8) film.writeBigUInt64BE(BigInt(value) << BigInt(one([0, 21, 32])), at);
      else film.writeUIntBE(value % 256 ** width, at, width);
      return film;
    },
  },
  {
    name: 'size',
    apply(film, { sizeAt, sizeBytes }, { one }) {
      const marker = sizeBytes === 4 ? 0 : 1;
      const value = one(NUMBERS) % 256 ** Math.min(sizeBytes, 4);
      film.writeUIntBE(value, sizeAt + Math.max(0, sizeBytes - 4), Math.min(sizeBytes, 4));
      if (marker) film[sizeAt] = (film[sizeAt]! & (0xff >> sizeBytes)) | (0x100 >> sizeBytes);
      return film;
    },
  },
  {
    name: 'rename',
    apply(film, part, { parts, one }) {
      const other = one(parts);
      const bytes = film.subarray(other.start, other.sizeAt);
      const isBox = part.sizeAt === part.start;
      if (isBox)
        film.write(one([other.name, 'stz2', 'co64', 'trun', 'elst']), part.start + 4, 'latin1');
      else bytes.copy(film, part.start, 0, part.sizeAt - part.start);
      return film;
    },
  },
  { name: 'leave out', apply: without },
  {
    name: 'double',
    apply: (film, { start, to }) =>
      Buffer.concat([film.subarray(0, to), film.subarray(start, to), film.subarray(to)]),
  },
  {
    name: 'move',
    apply(film, part, { parts, one }) {
      const target = one(parts).start;
      const rest = without(film, part);
      const at =
        target > part.start ? Math.max(part.start, target - (part.to - part.start)) : target;
      const moved = film.subarray(part.start, part.to);
      return Buffer.concat([rest.subarray(0, at), moved, rest.subarray(at)]);
    },
  },
  {
    name: 'cut',
    apply: (film, _, { below }) => film.subarray(0, below(film.length)),
  },
];
