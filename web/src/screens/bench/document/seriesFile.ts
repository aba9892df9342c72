/** A landmark file on its way to a film: opened, named, turned to the target, sent. */
import { csvNames, readCsv } from '@sinew/core/format/csv';
import { FormatError } from '@sinew/core/format/formatError';
import type { Naming } from '@sinew/core/format/naming';
import { pictureTrack, spaceTrack } from '@sinew/core/format/series';
import { readTrackJson, writeTrackJson } from '@sinew/core/format/trackJson';
import { readTrc, trcNames } from '@sinew/core/format/trc';
import { cross } from '@sinew/core/foundation/geometry/vector';
import type { Points, SpaceTrack } from '@sinew/core/observe/track/track';
import type { ImportedSeries } from '@sinew/core/analysis/clipFacts';
import { ask, wordsOf } from '@/api/client';
import { DROP_SERIES, KEEP_SERIES } from '@/api/endpoints';

type Kind = 'trc' | 'csv' | 'json';

export interface OpenedSeries {
  readonly fileName: string;
  readonly kind: Kind;
  readonly text: string;
  readonly names: readonly string[];
  readonly isSpace: boolean;
}

interface Problem {
  readonly problem: string;
}

/** Which axes of the file point up and to the target. */
export interface Orientation {
  readonly up: (typeof UP)[number];
  readonly toward: (typeof TOWARD)[number];
}
export const UP = ['y', 'z', 'x'] as const;
export const TOWARD = ['x', '-x', 'y', '-y', 'z', '-z'] as const;

/** Larger files are not of a strike. */
const MOST_BYTES = 200_000_000;

function attempted<T extends object>(work: () => T): T | Problem {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof FormatError)) throw error;
    return { problem: `${error.message[0]!.toUpperCase()}${error.message.slice(1)}.` };
  }
}

export async function openSeries(file: File): Promise<OpenedSeries | Problem> {
  if (file.size > MOST_BYTES) return { problem: 'This file is too large to be of a strike.' };
  const text = await file.text();
  const kind = kindOf(file.name, text);
  return attempted(() => {
    const opened = { fileName: file.name, kind, text };
    if (kind === 'json') {
      const { space, points } = readTrackJson(text);
      return { ...opened, names: Object.keys(points), isSpace: space === '3d' };
    }
    const names = kind === 'trc' ? trcNames(text) : csvNames(text);
    if (names.length === 0) throw new FormatError('there are no names of points in this file');
    const isSpace = kind === 'trc' || /(^|[,_])z(,|\r?\n|$)/m.test(text);
    return { ...opened, names, isSpace };
  });
}

function kindOf(name: string, text: string): Kind {
  if (/^\s*\{/.test(text)) return 'json';
  return text.startsWith('PathFileType') || /\.trc$/i.test(name) ? 'trc' : 'csv';
}

/** The series in Sinew's own JSON. */
export function trackOf(
  { kind, text, isSpace }: OpenedSeries,
  naming: Naming,
  axes: Orientation,
): { readonly json: string } | Problem {
  return attempted(() => {
    if (kind === 'json') return { json: text };
    const series = kind === 'trc' ? readTrc(text, naming) : readCsv(text, naming);
    if (!isSpace) {
      return { json: writeTrackJson({ ...pictureTrack(series), scale: null, target: null }) };
    }
    return { json: writeTrackJson(turned(spaceTrack(series), axes)) };
  });
}

/** To our own axes: x to the target, y up, z to the student's right. */
function turned(track: SpaceTrack, { up, toward }: Orientation): SpaceTrack {
  const unit = (axis: string) =>
    ['x', 'y', 'z'].map((one) => (axis.endsWith(one) ? (axis.startsWith('-') ? -1 : 1) : 0));
  const rows = [unit(toward), unit(up), cross(unit(toward), unit(up))];
  const turn = ({ x, y, z, ...rest }: Points): Points => {
    const [a, b, c] = rows.map((row) =>
      x.map((_, i) => row[0]! * x[i]! + row[1]! * y[i]! + row[2]! * z![i]!),
    );
    return { ...rest, x: a!, y: b!, z: c! };
  };
  const points = Object.entries(track.points).map(([name, own]) => [name, turn(own)]);
  return { ...track, points: Object.fromEntries(points) };
}

export async function sendSeries(
  clipId: string,
  fileName: string,
  begins: number,
  track: string,
): Promise<{ readonly series: ImportedSeries | null } | Problem> {
  try {
    const { series } = await ask(KEEP_SERIES, [clipId], { fileName, begins, track });
    return { series: series && { ...series, track: spaceIn(series.track) } };
  } catch (error) {
    return { problem: wordsOf(error) };
  }
}

function spaceIn(text: string): SpaceTrack {
  const track = readTrackJson(text);
  if (track.space !== '3d')
    throw new RangeError('a series in the picture was kept as one in space');
  return track;
}

export async function dropSeries(clipId: string): Promise<void> {
  await ask(DROP_SERIES, [clipId]);
}
