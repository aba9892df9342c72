/**
 * TRC, the tab-separated marker file of motion laboratories: five lines of header, then a line a
 * frame with its number, its time, and X, Y, Z of every marker. An empty place is a marker not seen.
 */
import type { Landmark } from '../foundation/body/landmarks';
import { meanRate } from '../observe/track/time';
import type { SpaceTrack } from '../observe/track/track';
import { FormatError } from './formatError';
import { OWN_NAMES, type Naming } from './naming';
import {
  checkedTimes,
  isUnseen,
  known,
  linesIn,
  MOST_FRAMES,
  mustBeShort,
  numberIn,
  seriesOf,
  withoutMark,
  type Places,
  type Series,
} from './series';

const METRES: Readonly<Record<string, number>> = { m: 1, mm: 0.001, cm: 0.01 };

/**
 * @param file its whole text
 * @param naming which landmarks its names mean
 * @throws FormatError naming the line
 */
export function readTrc(file: string, naming: Naming = OWN_NAMES): Series {
  const text = withoutMark(file);
  if (!text.startsWith('PathFileType')) {
    throw new FormatError('a TRC file begins with PathFileType', 1);
  }
  // Five lines of header, and perhaps empty ones.
  mustBeShort(linesIn(text, MOST_FRAMES + 100) - 100);
  const lines = text.split(/\r\n|\n|\r/);
  const heads = (lines[1] ?? '').split('\t').map((head) => head.trim());
  const values = (lines[2] ?? '').split('\t').map((value) => value.trim());
  const field = (name: string) => {
    const at = heads.indexOf(name);
    if (at < 0) throw new FormatError(`the header has no ${name}`, 2);
    return values[at] ?? '';
  };
  const scale = METRES[field('Units').toLowerCase()];
  if (scale === undefined) {
    throw new FormatError(`units must be m, cm or mm, not “${field('Units')}”`, 3);
  }
  const count = wholeNumber(field('NumFrames'), 'NumFrames');
  const markers = wholeNumber(field('NumMarkers'), 'NumMarkers');
  const names = trcNames(text);
  if (names.length !== markers) {
    throw new FormatError(`the header says ${markers} markers, but ${names.length} are named`, 4);
  }
  if (new Set(names).size < names.length) throw new FormatError('a marker is named twice', 4);
  const own = known(names, naming, 4);
  const rows = lines
    .map((line, i) => ({ line: i + 1, cells: line.split('\t'), isEmpty: line.trim() === '' }))
    .slice(5)
    .filter((row) => !row.isEmpty);
  if (rows.length !== count) {
    throw new FormatError(
      `the header says ${count} frames, but there are ${rows.length}`,
      rows[rows.length - 1]?.line ?? 6,
    );
  }
  const frameTimes = rows.map(({ cells, line }) => numberIn(cells[1] ?? '', 'the time', line));
  checkedTimes(frameTimes, (frame) => rows[frame]!.line);
  const places: Partial<Record<Landmark, Places>> = {};
  names.forEach((name, k) => {
    const landmark = own.get(name);
    if (!landmark) return;
    places[landmark] = rows.map(({ cells, line }) => {
      const three = cells.slice(2 + 3 * k, 5 + 3 * k).map((cell) => cell.trim());
      if (isUnseen(three)) return null;
      if (three.length < 3) throw new FormatError(`${name} has fewer than three numbers`, line);
      return three.map((cell) => scale * numberIn(cell, name, line));
    });
  });
  return { frameTimes, places, space: '3d', ignored: names.filter((name) => !own.has(name)) };
}

/** The names of the markers in a TRC file, as far as it is one. */
export function trcNames(text: string): string[] {
  return (text.split(/\r\n|\n|\r/, 4)[3] ?? '')
    .split('\t')
    .slice(2)
    .flatMap((name, i) => (i % 3 === 0 && name.trim() !== '' ? [name.trim()] : []));
}

function wholeNumber(cell: string, what: string): number {
  const value = Number(cell);
  if (cell !== '' && Number.isInteger(value) && value >= 0) return value;
  throw new FormatError(`${what} is not a whole number: “${cell.slice(0, 20)}”`, 3);
}

/** @param name what the file calls itself in its first line */
export function writeTrc(track: SpaceTrack, name: string): string {
  const { frameTimes, places } = seriesOf(track);
  const names = Object.keys(places) as Landmark[];
  const rate = meanRate(frameTimes);
  const head = [
    ['PathFileType', '4', '(X/Y/Z)', name],
    ['DataRate', 'CameraRate', 'NumFrames', 'NumMarkers', 'Units'].concat([
      'OrigDataRate',
      'OrigDataStartFrame',
      'OrigNumFrames',
    ]),
    [rate, rate, frameTimes.length, names.length, 'm', rate, 1, frameTimes.length].map(String),
    ['Frame#', 'Time', ...names.flatMap((one) => [one, '', ''])],
    ['', '', ...names.flatMap((_, i) => [`X${i + 1}`, `Y${i + 1}`, `Z${i + 1}`])],
  ];
  const rows = frameTimes.map((time, frame) => [
    String(frame + 1),
    String(time),
    ...names.flatMap((one) => (places[one]![frame] ?? ['', '', '']).map(String)),
  ]);
  return [...head, ...rows].map((cells) => cells.join('\t')).join('\n') + '\n';
}
