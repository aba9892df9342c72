/** One picture of a review on a canvas: the film, what shows it, and the words under it. */
import type { Piece } from './plan';

type Context = OffscreenCanvasRenderingContext2D;

const INK = '#15130f';
const PAPER = '#f7f2e9';
const SERIF = 'Georgia, "Liberation Serif", serif';
const SANS = '"Liberation Sans", Arial, sans-serif';
/** The longer side of the film in a review, pixels. */
const LONGEST = 1280;
/** Of the film's shorter side: the paper under it for the words. */
const PAPER_HEIGHT = 0.17;
/** Seconds in which what shows it, and the words of the work, come up. */
const FADE = 0.4;

export interface Layout {
  readonly width: number;
  readonly height: number;
  /** Height of the picture; what is left under it is paper. */
  readonly film: number;
}

/** The film in its own shape, with paper under it, so that no word lies over the feet; all even. */
export function layoutOf(film: { readonly width: number; readonly height: number }): Layout {
  const scale = Math.min(1, LONGEST / Math.max(film.width, film.height));
  const even = (pixels: number) => Math.max(2, 2 * Math.round(pixels / 2));
  const [width, height] = [even(film.width * scale), even(film.height * scale)];
  return { width, height: height + even(PAPER_HEIGHT * Math.min(width, height)), film: height };
}

/**
 * @param into seconds since the piece began
 * @param drawn what shows it, over the whole picture; null for nothing
 */
export function drawReview(
  context: Context,
  layout: Layout,
  picture: CanvasImageSource,
  piece: Piece,
  into: number,
  drawn: ImageBitmap | null,
): void {
  const { width, height, film } = layout;
  context.globalAlpha = 1;
  context.fillStyle = PAPER;
  context.fillRect(0, film, width, height - film);
  context.drawImage(picture, 0, 0, width, film);
  const come = Math.min(1, into / FADE);
  if (drawn && (piece.part === 'stands' || piece.part === 'work')) {
    context.globalAlpha = piece.part === 'stands' ? come : 1;
    context.drawImage(drawn, 0, 0, width, film);
    context.globalAlpha = 1;
  }
  if (piece.part === 'work') {
    context.fillStyle = INK;
    context.globalAlpha = 0.72 * come;
    context.fillRect(0, 0, width, height);
    context.globalAlpha = come;
    drawCentred(context, piece.words);
    context.globalAlpha = 1;
    return;
  }
  const [head = '', ...rest] = piece.words.split('\n');
  drawWords(context, layout, head, rest.join(' '), piece.part === 'stands');
}

/** Words on the paper: one line, or the cue over what it is seen by, as large as there is room for. */
function drawWords(
  context: Context,
  { width, height, film }: Layout,
  head: string,
  more: string,
  isCue: boolean,
): void {
  const room = height - film;
  const edge = 0.14 * room;
  const font = isCue ? SERIF : SANS;
  const at = (size: number) => {
    context.font = `${isCue ? '' : '600 '}${size}px ${font}`;
    const heads = wrapped(context, head, width - 2 * edge);
    const small = Math.min(size, 0.19 * room);
    context.font = `${small}px ${SANS}`;
    const mores = more ? wrapped(context, more, width - 2 * edge) : [];
    return {
      size,
      small,
      heads,
      mores,
      takes: heads.length * size * 1.15 + mores.length * small * 1.25,
    };
  };
  let fit = at((isCue ? 0.34 : 0.24) * room);
  while (fit.takes > room - edge && fit.size > 0.1 * room) fit = at(0.92 * fit.size);
  context.fillStyle = INK;
  context.textBaseline = 'top';
  let y = film + (room - fit.takes) / 2;
  context.font = `${isCue ? '' : '600 '}${fit.size}px ${font}`;
  for (const line of fit.heads) {
    context.fillText(line, edge, y);
    y += fit.size * 1.15;
  }
  context.font = `${fit.small}px ${SANS}`;
  for (const line of fit.mores) {
    context.fillText(line, edge, y);
    y += fit.small * 1.25;
  }
}

function drawCentred(context: Context, words: string): void {
  const { width, height } = context.canvas;
  const size = 0.07 * Math.min(width, height);
  context.font = `${size}px ${SERIF}`;
  context.fillStyle = PAPER;
  context.textBaseline = 'middle';
  const lines = wrapped(context, words, 0.84 * width);
  lines.forEach((line, i) => {
    const x = (width - context.measureText(line).width) / 2;
    context.fillText(line, x, height / 2 + (i - (lines.length - 1) / 2) * size * 1.3);
  });
}

/** Words in lines no longer than the room, by the font that is set; "3 × 8" stays together. */
export function wrapped(
  context: { measureText(text: string): { readonly width: number } },
  words: string,
  room: number,
): string[] {
  const lines: string[] = [];
  const together = words.replaceAll(' × ', '\u00a0×\u00a0');
  for (const word of together.split(/[ \n]+/).filter(Boolean)) {
    const last = lines[lines.length - 1];
    const longer = last === undefined ? word : `${last} ${word}`;
    if (last !== undefined && context.measureText(longer).width <= room) {
      lines[lines.length - 1] = longer;
    } else {
      lines.push(word);
    }
  }
  return lines;
}
