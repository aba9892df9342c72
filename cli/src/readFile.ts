/** A landmark file of any of the formats, as a track with its times from 0. */
import { readCsv } from '@sinew/core/format/csv';
import { pictureTrack, spaceTrack } from '@sinew/core/format/series';
import { readTrackJson } from '@sinew/core/format/trackJson';
import { readTrc } from '@sinew/core/format/trc';
import type { Calibration } from '@sinew/core/reconstruct/calibration/calibration';
import type { PictureTrack, SpaceTrack } from '@sinew/core/observe/track/track';

export type FileTrack =
  | { readonly track: SpaceTrack; readonly ignored: readonly string[] }
  | {
      readonly track: PictureTrack;
      readonly ignored: readonly string[];
      readonly calibration: Omit<Calibration, 'view'>;
    };

/**
 * @param name the file's name; its ending tells the format
 * @throws FormatError naming the place and the reason
 */
export function readTrack(name: string, text: string): FileTrack {
  const found = /\.trc$/i.test(name)
    ? fromTrc(text)
    : /\.csv$/i.test(name)
      ? fromCsv(text)
      : fromJson(text);
  return { ...found, track: fromZero(found.track) } as FileTrack;
}

/** Endings of files that hold landmarks. */
export const LANDMARK_FILE = /\.(trc|csv|json)$/i;

function fromTrc(text: string): FileTrack {
  const series = readTrc(text);
  return { track: spaceTrack(series), ignored: series.ignored };
}

/** Pixels on which a scale that is only a number is drawn as a line. */
const LINE = 1000;

function fromCsv(text: string): FileTrack {
  const file = readCsv(text);
  if (file.space === '3d') return { track: spaceTrack(file), ignored: file.ignored };
  const { metresPerPixel, target } = file;
  const origin = { x: 0, y: 0 };
  return {
    track: pictureTrack(file),
    ignored: file.ignored,
    calibration: {
      scale:
        metresPerPixel === null
          ? null
          : { from: origin, to: { x: LINE, y: 0 }, metres: LINE * metresPerPixel },
      target: target && { from: origin, to: { x: LINE * target[0], y: LINE * target[1] } },
    },
  };
}

function fromJson(text: string): FileTrack {
  const file = readTrackJson(text);
  if (file.space === '3d') return { track: file, ignored: [] };
  return { track: file, ignored: [], calibration: { scale: file.scale, target: file.target } };
}

function fromZero<T extends SpaceTrack | PictureTrack>(track: T): T {
  const first = track.frameTimes[0]!;
  return first === 0 ? track : { ...track, frameTimes: track.frameTimes.map((t) => t - first) };
}
