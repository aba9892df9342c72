/**
 * A strike of a clip, from all that the gym knows of it: the coach's marks and points, the body
 * tracker's, a second film, a series measured elsewhere, the student, the library.
 */
import { assumed } from '../reconstruct/calibration/assumed';
import type { Line } from '../reconstruct/calibration/calibration';
import type { Events } from '../measure/events/events';
import { estimatedSpace } from '../reconstruct/calibration/estimated';
import { joinViews, type Disagreement, type TwoViews } from '../reconstruct/calibration/twoViews';
import { markOnFrame, type EventName, type Marks } from '../measure/events/events';
import type { NextStrike } from '../measure/measures/context';
import type { Rules } from '../judge/fault/finding';
import type { Library } from '../judge/library/edits';
import { techniqueById } from '../foundation/technique/techniques';
import type { Strike } from '../foundation/technique/strike';
import { spaceOnFilm } from '../observe/track/onFilm';
import { realFrameTimes } from '../observe/track/time';
import { cutTrack } from '../observe/track/track';
import { cleanDetections, trackFrom } from '../observe/track/trackFromDetections';
import {
  analysisOf,
  besidesOf,
  measureStrike,
  type Analysis,
  type MeasuredStrike,
  type StrikeFacts,
} from './analyze';
import { clipCalibration } from './clipCalibration';
import type { ClipDocument, StrikeDocument } from './clipDocument';
import type { FilmDocument, FilmFacts, SecondFilm, StudentFacts } from './clipFacts';
import { atOurClock, instantsThere } from './otherFilm';
import { rulesFor } from './rules';
import { seeStrike, type SeenStrike, type SourceOfMotion } from './seenStrike';

/** A clip as the analysis takes it. */
export interface ClipInput {
  readonly document: ClipDocument;
  readonly film: FilmFacts;
  readonly student: StudentFacts;
  readonly second: SecondFilm | null;
}

export interface MeasuredInClip extends MeasuredStrike {
  readonly facts: StrikeFacts;
  /** What two films show together; null when there is one, or why they cannot be used together. */
  readonly space: InSpace | { readonly problem: string } | null;
  /** What was taken for granted because the coach has not set it. */
  readonly assumed: Assumed;
}

export interface ClipAnalysis extends Analysis, MeasuredInClip {
  /** What it was judged by. */
  readonly rules: Rules;
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

/** The whole way: measure → judge → cost → rank. */
export function analyzeClip(
  clip: ClipInput,
  strike: StrikeDocument,
  library: Library,
): ClipAnalysis {
  const measured = measureInClip(clip, strike);
  const rules = rulesFor(strike, clip.document.strikes, clip.student, library);
  return { ...measured, ...analysisOf(measured, measured.facts, rules), rules };
}

/** The first step alone: nothing of it depends on library or school. */
export function measureInClip(clip: ClipInput, strike: StrikeDocument): MeasuredInClip {
  const { seen, besides, other, ...about } = seeInClip(clip, strike);
  const facts: StrikeFacts = {
    strike: strikeOf(strike, clip.student),
    body: { mass: clip.student.massKg, height: clip.student.heightM },
    ...inCombination(clip, strike),
  };
  return { ...measureStrike(facts, seen, besides(), other()), facts, ...about };
}

/** Where points are, and when: without readings, for what only draws the strike. */
export function seenInClip(clip: ClipInput, strike: StrikeDocument): SeenStrike {
  return seeInClip(clip, strike).seen;
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

const strikeOf = ({ technique, side }: StrikeDocument, { stance }: StudentFacts): Strike => ({
  technique: techniqueById(technique),
  side,
  stance,
});

/** Where a strike stands in its combination; nothing when it stands alone. */
function inCombination(
  clip: ClipInput,
  { id, combination }: StrikeDocument,
): Pick<StrikeFacts, 'next' | 'isLastOfSeveral'> {
  if (combination === undefined) return {};
  const chain = clip.document.strikes.filter((one) => one.combination === combination);
  const follows = chain[chain.findIndex((one) => one.id === id) + 1];
  if (!follows) return chain.length > 1 ? { isLastOfSeveral: true } : {};
  const { events } = seenInClip(clip, follows);
  const next: NextStrike = { strike: strikeOf(follows, clip.student), events };
  return { next };
}

interface SeenInClip {
  readonly seen: SeenStrike;
  readonly besides: () => readonly SeenStrike[];
  /** The same strike in the other film, where the two cannot be laid together in space. */
  readonly other: () => SeenStrike | null;
  readonly space: MeasuredInClip['space'];
  readonly assumed: Assumed;
}

/**
 * The best source there is, and those that stand in where that has no answer: two films together, else a
 * series in space measured elsewhere, each with the picture beside it; else the picture, with the bands that
 * are worn in it beside it, and then the tracker's guess of the body in space. A second film that nothing joins
 * to the first but the clock is read by itself.
 */
function seeInClip(
  { document, film, student, second }: ClipInput,
  one: StrikeDocument,
): SeenInClip {
  const strike = strikeOf(one, student);
  const span = spanOf(one, document, film);
  const set = pictureOf(document, film, span);
  const calibration = assumed(set.calibration, set.tracking, strike, student.heightM);
  const { track } = set.tracking;
  const marks = marksOf(one, track.frameTimes);
  const other = second && pictureOf(second.document, second.film, EVERYTHING);
  const joined = second && other && joinedWith(set, other, second.offset);
  const whole = spaceOf(joined, film, track.frameTimes, span);
  const marked = { placed: set.placed, pictureHeight: film.height };
  const inPicture = () =>
    seeStrike({ track, calibration, bands: film.bands ?? null, marked }, strike, marks);
  const seen = whole ? seeStrike(whole, strike, marks) : inPicture();
  const guessed = () => {
    const guess = estimatedSpace(set.tracking, calibration, student.stance);
    // It tells how the body stands, at the instants that the picture shows.
    return guess
      ? [seeStrike({ track: guess }, strike, { ...forGuess(seen.events), ...marks })]
      : [];
  };
  const withBands = (picture: SeenStrike) => [picture, ...besidesOf(picture)];
  return {
    seen,
    other: () =>
      second && other && !whole
        ? inOtherFilm(second, other, strike, { ...marks, contact: seen.events.contact }, student)
        : null,
    besides: () => (whole ? withBands(inPicture()) : [...besidesOf(seen), ...guessed()]),
    space: joined && ('problem' in joined ? joined : shownTogether(joined)),
    assumed: {
      target: set.calibration.target ? null : calibration.target,
      isScale: calibration.scale !== null && set.calibration.scale === null,
    },
  };
}

const shownTogether = ({ track, disagreements }: TwoViews): InSpace => ({
  landmarks: Object.keys(track.points).length,
  disagreements,
});

function spaceOf(
  joined: ReturnType<typeof joinedWith> | null,
  { series }: FilmFacts,
  frameTimes: readonly number[],
  span: Stretch,
): SourceOfMotion | null {
  if (joined && !('problem' in joined)) {
    return Object.keys(joined.track.points).length > 0 ? { track: joined.track } : null;
  }
  if (!series) return null;
  return { track: cutTrack(spaceOnFilm(series.track, frameTimes, series.begins), span) };
}

/** Null where its contact is not known, or nothing set in its picture fixes anything. */
function inOtherFilm(
  { film, offset }: SecondFilm,
  { tracking, calibration, placed }: Picture,
  strike: Strike,
  { contact, ...marks }: Events,
  { heightM }: StudentFacts,
): SeenStrike | null {
  if (!contact) return null;
  const frameTimes = atOurClock(tracking.track.frameTimes, offset);
  const [first, last] = [frameTimes[0]!, frameTimes.at(-1)!];
  if (contact.time < first || contact.time > last) return null;
  const source = {
    track: { ...tracking.track, frameTimes },
    calibration: assumed(calibration, tracking, strike, heightM),
    bands: film.bands ?? null,
    marked: { placed, pictureHeight: film.height },
  };
  try {
    return seeStrike(source, strike, instantsThere({ ...marks, contact }, frameTimes, offset));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return null;
  }
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
  const base = film.tracked ?? cleanDetections([], realTimes);
  const placed = document.placed.filter(({ frame }) => frame < realTimes.length);
  const tracking = trackFrom(base, { ...document, placed }, film.height);
  const isIn = ({ frame }: { readonly frame: number }) =>
    realTimes[frame]! >= stretch[0] && realTimes[frame]! <= stretch[1];
  return {
    tracking: {
      ...tracking,
      track: cutTrack(tracking.track, stretch),
      detections: tracking.detections.filter(isIn),
    },
    placed: placed.filter(isIn),
    ...clipCalibration(document, film),
  };
}

type Picture = ReturnType<typeof pictureOf>;

function joinedWith(
  picture: Picture,
  other: Picture,
  offset: SecondFilm['offset'],
): TwoViews | { readonly problem: string } {
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

/**
 * Instants of a picture that a guess of the body in space may go by. A guard that is only the quietest moment
 * before, with nothing seen to start, does for differences in the picture; the guess is too rough for them: it
 * had a sound hand leave the head by 41 ± 23 cm.
 */
function forGuess({ ready, ...events }: Events): Events {
  const isStartSeen = (['load', 'hips', 'trunk', 'arm'] as const).some((one) => events[one]);
  return isStartSeen && ready ? { ...events, ready } : events;
}
