/** From the bench's document to the core's analysis: the one way the app measures and judges. */
import { analyze, type Analysis } from '@sinew/core/analyze';
import { joinViews, type Disagreement, type TwoViews } from '@sinew/core/calibration/twoViews';
import { markOnFrame, type EventName, type Marks } from '@sinew/core/events/events';
import type { Offset } from '@sinew/core/sound/sync';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { realFrameTimes } from '@sinew/core/track/time';
import { trackFromPlaced } from '@sinew/core/track/track';
import { calibrationOf } from './benchCalibration';
import type { BenchDocument, StrikeDocument } from './benchDocument';

/** What does not change while the coach works: the film itself. */
export interface FilmFacts {
  /** The file's own presentation times, seconds. */
  readonly frameTimes: readonly number[];
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

/** What the analysis asks of the student. */
export interface StudentFacts {
  readonly stance: 'orthodox' | 'southpaw';
  /** Metres and kilograms, where they are known. */
  readonly heightM: number | null;
  readonly massKg: number | null;
}

/** How and where a film was taken, and what was placed in it. */
export type FilmDocument = Omit<BenchDocument, 'strikes' | 'refused' | 'purpose'>;

/** Another film of the same take. */
export interface SecondFilm {
  readonly document: FilmDocument;
  readonly film: FilmFacts;
  /** To add to a real time of the first film to get this one's. */
  readonly offset: Offset;
}

export interface BenchAnalysis extends Analysis {
  /** What two films show together; null when there is one, or why they cannot be used together. */
  readonly space: InSpace | { readonly problem: string } | null;
}

export interface InSpace {
  /** How many landmarks both films show. */
  readonly landmarks: number;
  readonly disagreements: readonly Disagreement[];
}

export function marksOf(strike: StrikeDocument, realTimes: readonly number[]): Marks {
  const entries = Object.entries(strike.marks).filter(([, mark]) => mark.frame < realTimes.length);
  return Object.fromEntries(
    entries.map(([name, mark]) => [
      name as EventName,
      markOnFrame(realTimes, mark.frame, mark.width),
    ]),
  );
}

export function analyzeOnBench(
  document: FilmDocument,
  strike: StrikeDocument,
  film: FilmFacts,
  student: StudentFacts,
  second: SecondFilm | null = null,
): BenchAnalysis {
  const picture = pictureOf(document, film, spanOf(strike, document, film));
  const given = {
    strike: {
      technique: techniqueById(strike.technique),
      side: strike.side,
      stance: student.stance,
    },
    body: { mass: student.massKg, height: student.heightM },
    marks: marksOf(strike, picture.track.frameTimes),
  };
  const flat = analyze({ ...given, ...picture });
  if (!second) return { ...flat, space: null };
  const joined = joinedWith(picture, second);
  if ('problem' in joined) return { ...flat, space: joined };
  const landmarks = Object.keys(joined.track.points).length;
  const space = { landmarks, disagreements: joined.disagreements };
  if (landmarks === 0) return { ...flat, space };
  return { ...analyze({ ...given, track: joined.track, known: flat.readings }), space };
}

/** Real seconds from and to, both included. */
type Stretch = readonly [number, number];

const EVERYTHING: Stretch = [-Infinity, Infinity];

function spanOf({ span }: StrikeDocument, { captureRate }: FilmDocument, film: FilmFacts): Stretch {
  if (!span) return EVERYTHING;
  const times = realFrameTimes(film.frameTimes, captureRate);
  return [times[span.from] ?? 0, times[Math.min(span.to, times.length - 1)]!];
}

/** The points placed in a stretch of a film, and how its picture is to be understood. */
function pictureOf(document: FilmDocument, film: FilmFacts, [from, to]: Stretch) {
  const realTimes = realFrameTimes(film.frameTimes, document.captureRate);
  const placed = document.placed.filter(({ frame }) => {
    const time = realTimes[frame];
    return time !== undefined && time >= from && time <= to;
  });
  return {
    track: trackFromPlaced(placed, realTimes, film.height),
    ...calibrationOf(document, film),
  };
}

function joinedWith(
  picture: ReturnType<typeof pictureOf>,
  { document, film, offset }: SecondFilm,
): TwoViews | { readonly problem: string } {
  const other = pictureOf(document, film, EVERYTHING);
  const pictures = [picture, other];
  const missing = pictures.findIndex(
    ({ calibration: { rectangle } }) => !rectangle || rectangle.kind === 'upright',
  );
  if (missing >= 0) {
    const which = missing === 0 ? 'this film' : 'the other film';
    const why = pictures[missing]!.problem;
    return {
      problem:
        `Lengths in space need the same rectangle on the floor marked in both films; in ${which} ` +
        (why ? `it does not fit: ${why}.` : 'it is missing.'),
    };
  }
  try {
    return joinViews(picture, other, offset);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { problem: `The two films do not fit together: ${error.message}.` };
  }
}
