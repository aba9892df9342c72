/**
 * Landmark series as CSV, two ways. Long: a row for each landmark and frame (`frame, time, landmark,
 * x, y` and, in space, `z`). Wide: a row a frame (`time`, then `nose_x, nose_y, …`; `frame` may be there too). Lines
 * that begin with `#` may say what a picture's pixels mean: `# metres per pixel: 0.0025`,
 * `# target: 1 0` (the direction of the target in the picture, x right, y down).
 */
import Papa from 'papaparse';
import type { Landmark } from '../foundation/body/landmarks';
import type { PictureTrack, SpaceTrack } from '../observe/track/track';
import { FormatError } from './formatError';
import { OWN_NAMES, type Naming } from './naming';
import {
  checkedTimes,
  isUnseen,
  known,
  numberIn,
  MOST_FRAMES,
  mustBeShort,
  seriesOf,
  withoutMark,
  type Places,
  type Series,
} from './series';

export interface CsvFile extends Series {
  readonly metresPerPixel: number | null;
  /** Direction of the target in the picture; null when the file does not say. */
  readonly target: readonly [number, number] | null;
}

interface Table {
  readonly heads: readonly string[];
  readonly headLine: number;
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}

/**
 * @param text the whole file
 * @param naming which landmarks its names mean
 * @throws FormatError naming the line
 */
export function readCsv(text: string, naming: Naming = OWN_NAMES): CsvFile {
  const lines = linesOf(text);
  const notes = lines.flatMap((line, i) => (line.startsWith('#') ? [{ line, at: i + 1 }] : []));
  const table = tableOf(lines);
  const series = isLong(table) ? readLong(table, naming) : readWide(table, naming);
  return { ...series, ...said(notes) };
}

const linesOf = (text: string) => withoutMark(text).split(/\r\n|\n|\r/);
const isLong = ({ heads }: Table) => heads.includes('landmark');

/** The names of the points in a CSV file. @throws FormatError when it is no table */
export function csvNames(text: string): string[] {
  const table = tableOf(linesOf(text));
  if (!isLong(table)) return [...new Set(wideColumns(table).map(({ name }) => name))];
  const at = column(table, 'landmark');
  return [...new Set(table.rows.map(({ cells }) => cells[at]!))];
}

function wideColumns({ heads }: Table): { name: string; axis: string }[] {
  return heads.flatMap((head) => {
    const found = /^(.+)_([xyz])$/.exec(head);
    return found ? [{ name: found[1]!, axis: found[2]! }] : [];
  });
}

function cellsOf(line: string, at: number): string[] {
  if (!line.includes('"')) return line.split(',').map((cell) => cell.trim());
  const { data, errors } = Papa.parse<string[]>(line, { delimiter: ',' });
  if (errors.length > 0) throw new FormatError(errors[0]!.message.toLowerCase(), at);
  return data[0]!.map((cell) => cell.trim());
}

/** Frames are counted on the way, so that a file without end is soon refused. */
function tableOf(lines: readonly string[]): Table {
  let frameAt = -1;
  const frames = new Set<string | undefined>();
  const found: { line: number; cells: string[] }[] = [];
  for (const [i, line] of lines.entries()) {
    if (line.trim() === '' || line.startsWith('#')) continue;
    const cells = cellsOf(line, i + 1);
    if (found.length === 0) frameAt = cells.indexOf('frame');
    else mustBeShort(frames.add(frameAt < 0 ? String(i) : cells[frameAt]).size);
    found.push({ line: i + 1, cells });
  }
  const [head, ...rows] = found;
  if (!head) throw new FormatError('the file is empty', 1);
  const other = head.cells.length === 1 ? /[;\t]/.exec(head.cells[0]!) : null;
  if (other) {
    const sign = other[0] === ';' ? 'semicolons' : 'tabs';
    throw new FormatError(
      `the columns are separated by ${sign}; save the file with commas`,
      head.line,
    );
  }
  if (new Set(head.cells).size < head.cells.length) {
    throw new FormatError('a column is named twice', head.line);
  }
  for (const { cells, line } of rows) {
    if (cells.length !== head.cells.length) {
      throw new FormatError(
        `${cells.length} values where the header has ${head.cells.length} columns`,
        line,
      );
    }
  }
  return { heads: head.cells, headLine: head.line, rows };
}

function column({ heads, headLine }: Table, name: string): number {
  const at = heads.indexOf(name);
  if (at < 0) throw new FormatError(`there is no column “${name}”`, headLine);
  return at;
}

function frameIn(cell: string, line: number): number {
  const frame = numberIn(cell, 'frame', line);
  if (Number.isInteger(frame) && frame >= 0 && frame < MOST_FRAMES) return frame;
  throw new FormatError(`frame must be a whole number from 0, not ${cell}`, line);
}

/** A place, or null where nothing was seen. */
function placeIn(cells: readonly string[], what: string, line: number): number[] | null {
  if (isUnseen(cells)) return null;
  return cells.map((cell) => numberIn(cell, what, line));
}

function readLong(table: Table, naming: Naming): Series {
  const [frameAt, timeAt, nameAt] = ['frame', 'time', 'landmark'].map((one) => column(table, one));
  const axes = ['x', 'y', ...(table.heads.includes('z') ? ['z'] : [])].map((one) =>
    column(table, one),
  );
  const names = [...new Set(table.rows.map(({ cells }) => cells[nameAt!]!))];
  const own = known(names, naming, table.rows[0]?.line ?? table.headLine);
  const times = new Map<number, { time: number; line: number }>();
  for (const { cells, line } of table.rows) {
    const frame = frameIn(cells[frameAt!]!, line);
    const time = numberIn(cells[timeAt!]!, 'time', line);
    const before = times.get(frame);
    if (before && before.time !== time) {
      throw new FormatError(`frame ${frame} has two times`, line);
    }
    times.set(frame, before ?? { time, line });
  }
  // Frames may be left out where nothing was seen; those that are there are counted anew.
  const frames = [...times.keys()].sort((a, b) => a - b);
  const frameTimes = frames.map((frame) => times.get(frame)!.time);
  checkedTimes(frameTimes, (i) => times.get(frames[i]!)!.line);
  const index = new Map(frames.map((frame, i) => [frame, i]));
  const places: Partial<Record<Landmark, (number[] | null)[]>> = {};
  for (const { cells, line } of table.rows) {
    const name = cells[nameAt!]!;
    const landmark = own.get(name);
    if (!landmark) continue;
    const list = (places[landmark] ??= frames.map(() => null));
    const frame = Number(cells[frameAt!]);
    const at = index.get(frame)!;
    if (list[at]) throw new FormatError(`${name} stands twice on frame ${frame}`, line);
    list[at] = placeIn(
      axes.map((axis) => cells[axis]!),
      name,
      line,
    );
  }
  return {
    frameTimes,
    places,
    space: axes.length === 3 ? '3d' : '2d',
    ignored: names.filter((name) => !own.has(name)),
  };
}

function readWide(table: Table, naming: Naming): Series {
  const timeAt = column(table, 'time');
  const columns = wideColumns(table);
  const names = [...new Set(columns.map(({ name }) => name))];
  const own = known(names, naming, table.headLine);
  const isSpace = columns.some(({ name, axis }) => own.has(name) && axis === 'z');
  const frameAt = table.heads.indexOf('frame');
  if (frameAt >= 0) table.rows.forEach(({ cells, line }) => frameIn(cells[frameAt]!, line));
  const frameTimes = table.rows.map(({ cells, line }) => numberIn(cells[timeAt]!, 'time', line));
  checkedTimes(frameTimes, (i) => table.rows[i]!.line);
  const places: Partial<Record<Landmark, Places>> = {};
  for (const [name, landmark] of own) {
    const axes = ['x', 'y', ...(isSpace ? ['z'] : [])].map((axis) =>
      column(table, `${name}_${axis}`),
    );
    places[landmark] = table.rows.map(({ cells, line }) =>
      placeIn(
        axes.map((axis) => cells[axis]!),
        name,
        line,
      ),
    );
  }
  return {
    frameTimes,
    places,
    space: isSpace ? '3d' : '2d',
    ignored: names.filter((name) => !own.has(name)),
  };
}

function said(
  notes: readonly { line: string; at: number }[],
): Pick<CsvFile, 'metresPerPixel' | 'target'> {
  let metresPerPixel: number | null = null;
  let target: [number, number] | null = null;
  for (const { line, at } of notes) {
    const [, key, value] = /^#\s*([^:]+):\s*(.*)$/.exec(line) ?? [];
    if (key?.trim().toLowerCase() === 'metres per pixel') {
      metresPerPixel = numberIn(value!.trim(), 'metres per pixel', at);
      if (metresPerPixel <= 0) throw new FormatError('metres per pixel must be above 0', at);
    }
    if (key?.trim().toLowerCase() === 'target') {
      const parts = value!.trim().split(/\s+/);
      const [x, y] = parts.map((part) => numberIn(part, 'target', at));
      if (parts.length !== 2 || (x === 0 && y === 0)) {
        throw new FormatError('target must be two numbers, not both 0', at);
      }
      target = [x!, y!];
    }
  }
  return { metresPerPixel, target };
}

const AXES = ['x', 'y', 'z'] as const;

export function writeCsv(track: SpaceTrack | PictureTrack, layout: 'long' | 'wide'): string {
  const { frameTimes, places, space } = seriesOf(track);
  const axes = AXES.slice(0, space === '3d' ? 3 : 2);
  const entries = Object.entries(places) as [Landmark, Places][];
  const rows =
    layout === 'long'
      ? [
          ['frame', 'time', 'landmark', ...axes],
          ...frameTimes.flatMap((time, frame) =>
            entries.flatMap(([landmark, list]) => {
              const place = list[frame];
              return place ? [[frame, time, landmark, ...place]] : [];
            }),
          ),
        ]
      : [
          [
            'frame',
            'time',
            ...entries.flatMap(([landmark]) => axes.map((one) => `${landmark}_${one}`)),
          ],
          ...frameTimes.map((time, frame) => [
            frame,
            time,
            ...entries.flatMap(
              ([, list]): readonly (number | string)[] => list[frame] ?? axes.map(() => ''),
            ),
          ]),
        ];
  return Papa.unparse(rows, { newline: '\n' }) + '\n';
}
