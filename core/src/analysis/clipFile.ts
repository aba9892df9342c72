/**
 * A clip without its film, as one file: what was set on the bench, what was detected in the film, what
 * the analysis asks of the student, and the gym's library. Whoever has it gets what the bench shows.
 * It holds no names.
 */
import { z } from 'zod';
import { firstWrong } from '../foundation/problem/problem';
import { LANDMARKS } from '../foundation/body/landmarks';
import { FormatError } from '../format/formatError';
import { readTrackJson, writeTrackJson } from '../format/trackJson';
import { editsSchema, libraryFrom, type Edits, type Library } from '../judge/library/edits';
import { schoolSchema } from '../judge/school/schools';
import { bandTurnsSchema, turnsOf, type KeptBands } from '../observe/band/bandTurns';
import { SEEN_SIZE, type PoseDetection } from '../observe/track/poseDetection';
import type { SpaceTrack } from '../observe/track/track';
import type { ClipInput } from './analyzeClip';
import { clipDocumentSchema, type ClipDocument } from './clipDocument';
import { trackedOf, type FilmFacts, type StudentFacts } from './clipFacts';

/** How the clocks of two films differ. */
export const offsetSchema = z.object({
  seconds: z.number().finite(),
  sigma: z.number().nonnegative().finite(),
  by: z.enum(['sound', 'eye']),
  pairs: z.number().int().positive(),
});

const filmSchema = z.object({
  /** Seconds, the film's own. */
  frameTimes: z
    .array(z.number().finite())
    .min(2)
    .refine((all) => all.every((time, i) => i === 0 || time > all[i - 1]!), 'must ascend'),
  /** Pixels. */
  width: z.number().positive(),
  height: z.number().positive(),
  /** See `poseDetection.ts` for the order of the values. */
  detections: z.array(
    z.object({
      frame: z.number().int().nonnegative(),
      values: z.array(z.number().finite()).length(LANDMARKS.length * SEEN_SIZE),
    }),
  ),
  /** A body in space measured elsewhere; its track as the text of a track file. */
  series: z
    .object({ fileName: z.string(), begins: z.number().finite(), track: z.string() })
    .nullable(),
  /** What worn bands tell; files from before they were read have none. */
  bands: bandTurnsSchema.nullable().default(null),
});

const clipFileSchema = z.object({
  sinew: z.literal('clip'),
  version: z.literal(1),
  film: filmSchema,
  document: clipDocumentSchema,
  student: z.object({
    stance: z.enum(['orthodox', 'southpaw']),
    heightM: z.number().positive().nullable(),
    massKg: z.number().positive().nullable(),
    school: schoolSchema,
  }),
  second: z
    .object({
      film: filmSchema,
      document: clipDocumentSchema,
      offset: offsetSchema,
    })
    .nullable(),
  library: editsSchema,
});

type ClipFile = z.infer<typeof clipFileSchema>;

/** What is written of a film: the facts, the detections as they came, and what the bands said. */
export type FilmToWrite = Pick<FilmFacts, 'frameTimes' | 'width' | 'height' | 'series'> & {
  readonly detections: readonly PoseDetection[];
  readonly bands: KeptBands | null;
};

export interface ClipToWrite {
  readonly film: FilmToWrite;
  readonly document: ClipFile['document'];
  readonly student: StudentFacts;
  readonly second: {
    readonly film: FilmToWrite;
    readonly document: ClipFile['document'];
    readonly offset: NonNullable<ClipInput['second']>['offset'];
  } | null;
  readonly library: Edits;
}

export function writeClipFile({ film, document, student, second, library }: ClipToWrite): string {
  const { stance, heightM, massKg, school } = student;
  const file: ClipFile = {
    sinew: 'clip',
    version: 1,
    film: filmOut(film),
    document: withoutNotes(document),
    student: { stance, heightM, massKg, school },
    second: second && {
      ...second,
      film: filmOut(second.film),
      document: withoutNotes(second.document),
    },
    library,
  };
  return JSON.stringify(file);
}

/** A coach's words are for the gym: they name people, and what hurts them. */
function withoutNotes({ note: _, strikes, ...document }: ClipDocument): ClipDocument {
  return { ...document, strikes: strikes.map(({ note: __, ...strike }) => strike) };
}

/**
 * @param text the whole file
 * @throws FormatError naming the place and the reason
 */
export function readClipFile(text: string): {
  readonly clip: ClipInput;
  readonly library: Library;
} {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new FormatError('not JSON');
  }
  const parsed = clipFileSchema.safeParse(json);
  if (!parsed.success) {
    throw new FormatError(`not a clip of Sinew’s: ${firstWrong(parsed.error)}`);
  }
  const { film, document, student, second, library } = parsed.data;
  return {
    clip: {
      document,
      film: filmIn(film, document),
      student,
      second: second && { ...second, film: filmIn(second.film, second.document) },
    },
    library: libraryFrom(library),
  };
}

/** Whether a text claims to be a clip; it may still be a broken one. */
export function isClipFile(text: string): boolean {
  return /^\s*\{\s*"sinew"\s*:\s*"clip"/.test(text);
}

function filmOut({ detections, series, ...film }: FilmToWrite): ClipFile['film'] {
  const { frameTimes, width, height, bands } = film;
  return {
    frameTimes: [...frameTimes],
    width,
    height,
    bands,
    detections: detections.map(({ frame, values }) => ({ frame, values: [...values] })),
    series: series ? { ...series, track: writeTrackJson(series.track) } : null,
  };
}

function filmIn(film: ClipFile['film'], document: ClipFile['document']): FilmFacts {
  const detections = film.detections.map(({ frame, values }) => ({
    frame,
    values: Float32Array.from(values),
  }));
  return {
    ...film,
    tracked: trackedOf(detections, film, document),
    series: film.series && { ...film.series, track: spaceIn(film.series.track) },
    bands: film.bands && turnsOf(film.bands),
  };
}

function spaceIn(text: string): SpaceTrack {
  const track = readTrackJson(text);
  if (track.space !== '3d') throw new FormatError('not a clip of Sinew’s: its series is flat');
  return track;
}
