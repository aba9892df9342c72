/** From the bench's document to the core's analysis: the one way the app measures and judges. */
import { analyze, type Analysis, type AnalysisInput } from '@sinew/core/analysis/analyze';
import { assumed } from '@sinew/core/reconstruct/calibration/assumed';
import type { Line } from '@sinew/core/reconstruct/calibration/calibration';
import { estimatedSpace } from '@sinew/core/reconstruct/calibration/estimated';
import { joinViews, type Disagreement, type TwoViews } from '@sinew/core/reconstruct/calibration/twoViews';
import { markOnFrame, type EventName, type Marks } from '@sinew/core/measure/events/events';
import type { Offset } from '@sinew/core/observe/sound/sync';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { Rules } from '@sinew/core/judge/fault/judge';
import type { School } from '@sinew/core/judge/school/schools';
import { resolve } from '@sinew/core/judge/school/resolve';
import type { Strike } from '@sinew/core/foundation/technique/strike';
import type { Sighting } from '@sinew/core/observe/track/poseDetection';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { mended, trackFrom, type Mended } from '@sinew/core/observe/track/trackFromDetections';
import { spaceOnFilm } from '@sinew/core/observe/track/onFilm';
import { cutTrack, type SpaceTrack } from '@sinew/core/observe/track/track';
import { calibrationOf } from './benchCalibration';
import type { BenchDocument, StrikeDocument } from './benchDocument';
import type { Library } from '../gym/library';

/** What does not change while the coach works: the film itself. */
export interface FilmFacts {
  /** The file's own presentation times, seconds. */
  readonly frameTimes: readonly number[];
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** What the body tracker saw in it, over real time; nothing when missing. */
  readonly tracked?: Mended | null;
  /** A body in space that was measured elsewhere. */
  readonly series?: ImportedSeries | null;
}

export interface ImportedSeries {
  readonly fileName: string;
  /** Real time of the film at which its own time is 0, seconds. */
  readonly begins: number;
  readonly track: SpaceTrack;
}

/** What the body tracker saw in a film, laid over real time; null when it saw nothing. */
export function trackedOf(
  sightings: readonly Sighting[],
  { frameTimes }: Pick<FilmFacts, 'frameTimes'>,
  { captureRate }: Pick<FilmDocument, 'captureRate'>,
): Mended | null {
  return sightings.length > 0 ? mended(sightings, realFrameTimes(frameTimes, captureRate)) : null;
}

/** What the analysis asks of the student. */
export interface StudentFacts {
  /** The student's own choices of school. */
  readonly school: School;
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

/** A film's document, with its strikes where those that follow each other matter. */
type WithStrikes = FilmDocument & Partial<Pick<BenchDocument, 'strikes'>>;

export interface BenchAnalysis extends Analysis {
  /** What it was judged by. */
  readonly rules: Rules;
  /** What two films show together; null when there is one, or why they cannot be used together. */
  readonly space: InSpace | { readonly problem: string } | null;
  /** What was taken for granted because the coach has not set it. */
  readonly assumed: Assumed;
}

export interface Assumed {
  readonly target: Line | null;
  readonly isScale: boolean;
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

/** What a strike is judged by: the gym's library and school, the student's, its own. */
export function rulesFor(
  strike: StrikeDocument,
  { strikes = [] }: Pick<WithStrikes, 'strikes'>,
  student: Pick<StudentFacts, 'school'>,
  library: Library,
): Rules {
  const { combination } = strike;
  const isOfSeveral = strikes.filter((one) => one.combination === combination).length > 1;
  return rulesOfStrike(strike, combination !== undefined && isOfSeveral, student, library);
}

/** @param isOfSeveral whether it is thrown in a combination, where the coach has not said otherwise */
export function rulesOfStrike(
  strike: Pick<StrikeDocument, 'situation' | 'range' | 'school' | 'audit'>,
  isOfSeveral: boolean,
  student: Pick<StudentFacts, 'school'>,
  library: Library,
): Rules {
  const { situation, range = null, school = {}, audit = {} } = strike;
  return {
    catalogue: library.catalogue,
    school: resolve({
      gym: library.school,
      student: student.school,
      strike: school,
      situation: situation ?? (isOfSeveral ? 'combination' : 'not-said'),
      range,
    }),
    audit,
  };
}

const thrownAs = ({ technique, side }: StrikeDocument, { stance }: StudentFacts): Strike => ({
  technique: techniqueById(technique),
  side,
  stance,
});

/** Where a strike stands in its combination; nothing when it stands alone. */
function inCombination(
  document: WithStrikes,
  strike: StrikeDocument,
  film: FilmFacts,
  student: StudentFacts,
  second: SecondFilm | null,
  library: Library,
): Pick<AnalysisInput, 'next' | 'isLastOfSeveral'> {
  const { combination } = strike;
  const { strikes = [], ...alone } = document;
  if (combination === undefined) return {};
  const chain = strikes.filter((one) => one.combination === combination);
  const next = chain[chain.findIndex(({ id }) => id === strike.id) + 1];
  if (!next) return chain.length > 1 ? { isLastOfSeveral: true } : {};
  const { events } = analyzeOnBench(alone, next, film, student, library, second);
  return { next: { strike: thrownAs(next, student), events } };
}

export function analyzeOnBench(
  document: WithStrikes,
  strike: StrikeDocument,
  film: FilmFacts,
  student: StudentFacts,
  library: Library,
  second: SecondFilm | null = null,
): BenchAnalysis {
  const rules = rulesFor(strike, document, student, library);
  const thrown = thrownAs(strike, student);
  const set = pictureOf(document, film, spanOf(strike, document, film));
  const calibration = assumed(set.calibration, set.tracking, thrown, student.heightM);
  const picture = { track: set.tracking.track, calibration };
  const given = {
    ...{ strike: thrown, rules },
    body: { mass: student.massKg, height: student.heightM },
    marks: marksOf(strike, picture.track.frameTimes),
    ...inCombination(document, strike, film, student, second, library),
  };
  const taken: Assumed = {
    target: set.calibration.target ? null : calibration.target,
    isScale: calibration.scale !== null && set.calibration.scale === null,
  };
  const joined = second && joinedWith(set, second);
  const flat = analyze({ ...given, ...picture });
  if (joined && !('problem' in joined)) {
    const landmarks = Object.keys(joined.track.points).length;
    const space = { landmarks, disagreements: joined.disagreements };
    const whole =
      landmarks > 0 ? analyze({ ...given, track: joined.track, known: flat.readings }) : flat;
    return { ...whole, rules, space, assumed: taken };
  }
  if (film.series) {
    const { track, begins } = film.series;
    const onFilm = spaceOnFilm(track, picture.track.frameTimes, begins);
    const cut = cutTrack(onFilm, spanOf(strike, document, film));
    const whole = analyze({ ...given, track: cut, known: flat.readings });
    return { ...whole, rules, space: joined, assumed: taken };
  }
  const guessed = estimatedSpace(set.tracking, calibration);
  const whole = guessed
    ? analyze({ ...given, ...picture, known: guessedReadings(guessed, given, flat) })
    : flat;
  return { ...whole, rules, space: joined, assumed: taken };
}

/** What a tracker's guess of the body in space gives, at the instants that the picture shows. */
function guessedReadings(
  track: SpaceTrack,
  given: Pick<AnalysisInput, 'strike' | 'body' | 'marks'>,
  { events }: Analysis,
) {
  return analyze({ ...given, track, marks: { ...events, ...given.marks } }).readings;
}

/** Real seconds from and to, both included. */
type Stretch = readonly [number, number];

const EVERYTHING: Stretch = [-Infinity, Infinity];

function spanOf({ span }: StrikeDocument, { captureRate }: FilmDocument, film: FilmFacts): Stretch {
  if (!span) return EVERYTHING;
  const times = realFrameTimes(film.frameTimes, captureRate);
  return [times[span.from] ?? 0, times[Math.min(span.to, times.length - 1)]!];
}

/** What was tracked and placed in a stretch of a film, and how its picture is to be understood. */
function pictureOf(document: FilmDocument, film: FilmFacts, stretch: Stretch) {
  const realTimes = realFrameTimes(film.frameTimes, document.captureRate);
  const base = film.tracked ?? mended([], realTimes);
  const placed = document.placed.filter(({ frame }) => frame < realTimes.length);
  const tracking = trackFrom(base, { ...document, placed }, film.height);
  const isIn = ({ frame }: { readonly frame: number }) =>
    realTimes[frame]! >= stretch[0] && realTimes[frame]! <= stretch[1];
  return {
    tracking: {
      ...tracking,
      track: cutTrack(tracking.track, stretch),
      sightings: tracking.sightings.filter(isIn),
    },
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
    const [first, second] = pictures.map(({ tracking, calibration }) => ({
      track: tracking.track,
      calibration,
    }));
    return joinViews(first!, second!, offset);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { problem: `The two films do not fit together: ${error.message}.` };
  }
}
