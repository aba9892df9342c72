/** One picture of a review on a canvas: the film, what shows it, and the words under it. */
import type { Piece } from './plan';

export interface Shapes {
  /** Pixels of the film. */
  readonly lines: readonly (readonly { readonly x: number; readonly y: number }[])[];
  readonly label: string;
  /** What the coach has drawn on the frame, as a picture of the film's own size; null for nothing. */
  readonly drawn: ImageBitmap | null;
}

type Context = OffscreenCanvasRenderingContext2D;

const INK = '#15130f';
const PAPER = '#f7f2e9';
const NOW = '#b92d17';
const SERIF = 'Georgia, "Liberation Serif", serif';
const SANS = '"Liberation Sans", Arial, sans-serif';
/** Seconds in which what shows it, and the words of the work, come up. */
const FADE = 0.4;

/** The size of a review: the film's own shape, its longer side no more than this, both even. */
export function sizeOf(film: { readonly width: number; readonly height: number }, most = 1280) {
  const scale = Math.min(1, most / Math.max(film.width, film.height));
  const even = (pixels: number) => Math.max(2, 2 * Math.round((pixels * scale) / 2));
  return { width: even(film.width), height: even(film.height) };
}

/** @param into seconds since the piece began */
export function drawReview(
  context: Context,
  picture: CanvasImageSource,
  film: { readonly width: number; readonly height: number },
  piece: Piece,
  into: number,
  shapes: Shapes,
): void {
  const { width, height } = context.canvas;
  context.globalAlpha = 1;
  context.drawImage(picture, 0, 0, width, height);
  const come = Math.min(1, into / FADE);
  if (piece.part === 'stands' || piece.part === 'work') {
    context.globalAlpha = piece.part === 'stands' ? come : 1;
    drawShapes(context, shapes, width / film.width);
    if (shapes.drawn) context.drawImage(shapes.drawn, 0, 0, width, height);
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
  drawBand(context, head, rest.join(' '), piece.part === 'stands');
}

function drawShapes(context: Context, { lines, label }: Shapes, scale: number): void {
  const unit = context.canvas.width / 640;
  context.lineCap = 'round';
  context.lineJoin = 'round';
  for (const [color, breadth] of [
    [PAPER, 6],
    [NOW, 3],
  ] as const) {
    context.strokeStyle = color;
    context.lineWidth = breadth * unit;
    for (const line of lines) {
      context.beginPath();
      for (const { x, y } of line) context.lineTo(x * scale, y * scale);
      context.stroke();
    }
  }
  const end = lines[0]?.[lines[0].length - 1];
  if (!end || !label) return;
  context.font = `600 ${18 * unit}px ${SANS}`;
  context.textBaseline = 'middle';
  context.lineWidth = 5 * unit;
  context.strokeStyle = PAPER;
  context.fillStyle = INK;
  const x = Math.min(
    end.x * scale + 12 * unit,
    context.canvas.width - context.measureText(label).width - 8 * unit,
  );
  context.strokeText(label, x, end.y * scale);
  context.fillText(label, x, end.y * scale);
}

/** Words on paper along the foot: one line, or the cue over what it is seen by. */
function drawBand(context: Context, head: string, more: string, isCue: boolean): void {
  const { width, height } = context.canvas;
  const unit = Math.min(width, height) / 360;
  const [size, small] = [(isCue ? 21 : 13) * unit, 12.5 * unit];
  const edge = 14 * unit;
  context.font = `${isCue ? '' : '600 '}${size}px ${isCue ? SERIF : SANS}`;
  const heads = wrapped(context, head, width - 2 * edge);
  context.font = `${small}px ${SANS}`;
  const mores = more ? wrapped(context, more, width - 2 * edge) : [];
  const room = heads.length * size * 1.2 + mores.length * small * 1.35 + edge;
  context.fillStyle = PAPER;
  context.fillRect(0, height - room, width, room);
  context.fillStyle = INK;
  context.textBaseline = 'top';
  let y = height - room + edge / 2;
  context.font = `${isCue ? '' : '600 '}${size}px ${isCue ? SERIF : SANS}`;
  for (const line of heads) {
    context.fillText(line, edge, y);
    y += size * 1.2;
  }
  context.font = `${small}px ${SANS}`;
  for (const line of mores) {
    context.fillText(line, edge, y);
    y += small * 1.35;
  }
}

function drawCentred(context: Context, words: string): void {
  const { width, height } = context.canvas;
  const size = 0.075 * Math.min(width, height);
  context.font = `${size}px ${SERIF}`;
  context.fillStyle = PAPER;
  context.textBaseline = 'middle';
  const lines = wrapped(context, words, 0.84 * width);
  lines.forEach((line, i) => {
    const x = (width - context.measureText(line).width) / 2;
    context.fillText(line, x, height / 2 + (i - (lines.length - 1) / 2) * size * 1.3);
  });
}

/** Words in lines no longer than the room, by the font that is set. */
export function wrapped(
  context: { measureText(text: string): { readonly width: number } },
  words: string,
  room: number,
): string[] {
  const lines: string[] = [];
  for (const word of words.split(/\s+/).filter(Boolean)) {
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
