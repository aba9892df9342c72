/** YUV4MPEG2, the plainest open film format: a line of facts, then whole pictures, brightness first. */
import type { Grey } from '@sinew/core/observe/footage/grey';

export interface FilmFacts {
  readonly width: number;
  readonly height: number;
  /** Frames a second, as the file says. */
  readonly rate: number;
}

/** Bytes a picture takes beside its brightness, for each way of keeping colour. */
const COLOUR: readonly (readonly [string, number])[] = [
  ['420', 1 / 2],
  ['422', 1],
  ['444', 2],
  ['411', 1 / 2],
  ['mono', 0],
];
const LARGEST = 8192;
const LONGEST_LINE = 1024;

/**
 * The pictures of a film, one at a time, brightness only.
 *
 * @param pieces of the file, in order
 * @throws RangeError with one line that says what is wrong
 */
export async function* picturesOf(
  pieces: AsyncIterable<Uint8Array>,
): AsyncGenerator<{ readonly picture: Grey; readonly facts: FilmFacts }> {
  const source = new Source(pieces);
  const facts = factsIn(await source.line());
  const { width, height, deep, colour } = facts;
  const size = width * height * (deep ? 2 : 1);
  const rest =
    (colour === 1 / 2
      ? 2 * Math.ceil(width / 2) * Math.ceil(height / 2)
      : colour * width * height) * (deep ? 2 : 1);
  for (let number = 1; ; number++) {
    const line = await source.line();
    if (line === null) return;
    if (!line.startsWith('FRAME'))
      throw new RangeError(`picture ${number} does not begin with FRAME`);
    const bytes = await source.take(size);
    const colours = bytes && (await source.take(rest));
    if (!bytes || !colours)
      throw new RangeError(`the film ends in the middle of picture ${number}`);
    const data = deep ? shallow(bytes, deep) : bytes;
    yield { picture: { width, height, data }, facts };
  }
}

function factsIn(line: string | null): FilmFacts & { deep: number; colour: number } {
  const [magic, ...words] = (line ?? '').split(' ');
  if (magic !== 'YUV4MPEG2')
    throw new RangeError('this is no Y4M film (it does not begin with YUV4MPEG2)');
  const said = new Map(words.map((word) => [word[0], word.slice(1)]));
  const [width, height] = ['W', 'H'].map((key) => Number(said.get(key)));
  const [above, below] = (said.get('F') ?? '').split(':').map(Number);
  const rate = above! / below!;
  const isSize = (one: number) => Number.isInteger(one) && one > 0 && one <= LARGEST;
  if (!isSize(width!) || !isSize(height!))
    throw new RangeError(`a picture must be 1 to ${LARGEST} pixels wide and high`);
  if (!(rate > 0 && Number.isFinite(rate)))
    throw new RangeError('the film does not say how many frames a second it has');
  const kind = said.get('C') ?? '420';
  const colour = COLOUR.find(([name]) => kind.startsWith(name));
  if (!colour)
    throw new RangeError(`colour kept as ${kind} cannot be read; 420, 422, 444 and mono can`);
  const bits = Number(/p(\d+)$/.exec(kind)?.[1] ?? /^mono(\d+)$/.exec(kind)?.[1] ?? 8);
  return { width: width!, height: height!, rate, deep: bits > 8 ? bits : 0, colour: colour[1] };
}

/** Two bytes a pixel, the lesser one first, to one. */
function shallow(bytes: Uint8Array, bits: number): Uint8Array {
  return Uint8Array.from(
    { length: bytes.length / 2 },
    (_, i) => (bytes[2 * i]! | (bytes[2 * i + 1]! << 8)) >> (bits - 8),
  );
}

/** Pieces as they come, handed out as lines and as counted bytes. */
class Source {
  private readonly pieces: AsyncIterator<Uint8Array>;
  private held: Uint8Array[] = [];
  private length = 0;

  constructor(pieces: AsyncIterable<Uint8Array>) {
    this.pieces = pieces[Symbol.asyncIterator]();
  }

  private async more(): Promise<boolean> {
    const { value, done } = await this.pieces.next();
    if (done) return false;
    this.held.push(value);
    this.length += value.length;
    return true;
  }

  /** Null when the film has ended. */
  async take(count: number): Promise<Uint8Array | null> {
    while (this.length < count) if (!(await this.more())) return null;
    const whole = this.held.length === 1 ? this.held[0]! : Buffer.concat(this.held);
    this.held = [whole.subarray(count)];
    this.length = whole.length - count;
    return whole.subarray(0, count);
  }

  /** Without its end; null when the film has ended. @throws RangeError when it has no end */
  async line(): Promise<string | null> {
    for (;;) {
      const whole = this.held.length === 1 ? this.held[0]! : Buffer.concat(this.held);
      this.held = [whole];
      const end = whole.indexOf(10);
      if (end >= 0 && end <= LONGEST_LINE) {
        const line = Buffer.from(whole.subarray(0, end)).toString('latin1');
        await this.take(end + 1);
        return line;
      }
      if (whole.length > LONGEST_LINE)
        throw new RangeError('this is no Y4M film: a line of it has no end');
      if (!(await this.more())) return null;
    }
  }
}
