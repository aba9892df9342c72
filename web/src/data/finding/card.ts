/** What a student takes home: for each cue the picture that shows it, the number then and now, the work. */
import { isOfReading } from '@sinew/core/judge/fault/schema';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { daysBetween, plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import type { AnyEvent } from '@sinew/core/measure/events/events';
import { faultById } from '@sinew/core/judge/fault/faults';
import { evidenceOf, type Evidence } from '@sinew/core/measure/measures/evidence';
import {
  MEASURE_IDS,
  MEASURE_NAMES,
  type MeasureId,
} from '@sinew/core/measure/measures/allMeasures';
import type { Verdict } from '@sinew/core/train/progress/change';
import { isAbsent, type Measured, type Reading } from '@sinew/core/foundation/reading/reading';
import { say } from '@sinew/core/foundation/reading/say';
import { trackFrom, cleanDetections } from '@sinew/core/observe/track/trackFromDetections';
import { placeAt } from '@sinew/core/observe/track/place';
import { heededBy } from '@sinew/core/train/work/condition';
import { nearestFrame, realFrameTimes } from '@sinew/core/observe/track/time';
import type { Drawing } from '@sinew/core/analysis/drawing';
import { measureInClip } from '@sinew/core/analysis/analyzeClip';
import type { Clip } from '../clip/clips';
import type { Db } from '../database/db';
import { activeCues, type Cue } from './findings';
import { clipInputOf } from '../clip/clipInput';
import { comparer, sidesOf, type Comparer, type Side } from '../progress/comparison';
import { COLUMNS } from '../database/columns';
import { strikesNow, type MeasuredStrike } from './measured';
import { libraryOf } from '../gym/library';
import { today } from '../database/today';
import { workOf, type Given } from '../work/work';

export interface CardPicture {
  readonly clip: Pick<Clip, 'id' | 'width' | 'height'>;
  readonly frame: number;
  /** First and last frame of the strike, with a little before and after it; and its contact. */
  readonly strike: readonly [number, number];
  readonly contact: number;
  readonly captureRate: number | null;
  /** What the coach has drawn on that frame. */
  readonly drawings: readonly Drawing[];
  /** Lines to draw, pixels; none where the evidence is one of time. */
  readonly lines: readonly (readonly PixelPoint[])[];
  readonly label: string;
  /** Two instants in seconds, where the evidence is how far they are apart. */
  readonly span: { readonly names: readonly [string, string]; readonly seconds: number } | null;
}

export interface ThenAndNow {
  readonly name: string;
  readonly then: string;
  /** Null until it has been filmed again. */
  readonly now: string | null;
  readonly verdict: Verdict | null;
  readonly why: string | null;
}

export interface CardCue {
  readonly cue: Cue;
  readonly fault: string;
  readonly caution: string | null;
  readonly isInjury: boolean;
  readonly picture: CardPicture | null;
  readonly number: ThenAndNow | null;
  readonly work: readonly Given[];
  /** From today to the day before the next check, a box each. */
  readonly days: readonly Day[];
}

export interface CardOf {
  readonly cues: readonly CardCue[];
  /** Work that belongs to no cue. */
  readonly other: readonly Given[];
  /** What the student leaves out, as sentences. */
  readonly heed: readonly string[];
}

/** Shown before the first instant of a strike and after the last, seconds. */
const AROUND = 0.25;
/** Boxes for at most so many days. */
const MOST_DAYS = 14;

/** @returns null when there is no such student */
export async function cardOf(db: Db, studentId: string): Promise<CardOf | null> {
  const [cues, work, { catalogue }, compared] = await Promise.all([
    activeCues(db, studentId),
    workOf(db, studentId),
    libraryOf(db),
    comparer(db, studentId),
  ]);
  if (!work) return null;
  const day = today();
  const found: CardCue[] = [];
  for (const cue of cues) {
    const fault = faultById(cue.fault, catalogue);
    const own = work.given.filter(
      (one) => one.fault === cue.fault && one.technique === cue.technique,
    );
    const until = own.map(({ nextCheck }) => nextCheck).sort()[0] ?? day;
    const judged = await judgedOf(db, cue);
    const { strikes } = await strikesNow(db, studentId, { technique: cue.technique });
    const length = Math.min(MOST_DAYS, Math.max(0, daysBetween(day, until)));
    found.push({
      cue,
      fault: fault?.name ?? cue.fault,
      caution: fault?.caution ?? null,
      isInjury: fault?.injury === true,
      picture: await pictureOf(db, cue, judged),
      number: judged && thenAndNow(cue, judged, strikes, compared),
      work: own,
      days: Array.from({ length }, (_, i) => plusDays(day, i)),
    });
  }
  const ofCues = new Set(found.flatMap((one) => one.work.map(({ id }) => id)));
  const other = work.given.filter(({ id }) => !ofCues.has(id));
  return { cues: found, other, heed: heededBy(work.condition) };
}

interface JudgedThen {
  readonly id: MeasureId;
  readonly then: Reading;
  /** Whether a part of it may have been measured in its place. */
  readonly mayBePart: boolean;
}

/** The first reading that judged a finding, whole, as it was then. */
async function judgedOf(db: Db, cue: Cue): Promise<JudgedThen | null> {
  const row = await db
    .selectFrom('finding')
    .select('judged_by')
    .where('strike_id', '=', cue.strikeId)
    .where('fault', '=', cue.fault)
    .executeTakeFirst();
  const [first] = row ? COLUMNS.finding.judged_by.readOr(row.judged_by, []) : [];
  if (!first || !isOfReading(first.limit) || !first.measured || isAbsent(first.measured))
    return null;
  const { reading, partly } = first.limit;
  const id = MEASURE_IDS.find((one) => one === reading);
  return id ? { id, then: first.measured, mayBePart: partly !== undefined } : null;
}

/** The strike that the cue came from held against the newest of its kind, as `/compare` does it. */
function thenAndNow(
  cue: Cue,
  judged: JudgedThen,
  strikes: readonly MeasuredStrike[],
  compared: Comparer,
): ThenAndNow {
  const { id } = judged;
  const name = MEASURE_NAMES[id];
  const then = strikes.find((one) => one.id === cue.strikeId);
  const newest = strikes[strikes.length - 1];
  if (!then || !newest || newest.clipId === cue.clipId) {
    const said = saidThen(judged, then?.readings[id]);
    return { name, then: said, now: null, verdict: null, why: null };
  }
  const sides = [sideOf(then, strikes), sideOf(firstOf(newest, strikes), strikes)] as const;
  const [before, after] = sidesOf(...sides);
  const { ofStrikes, ofSets } = compared(...sides);
  const change = (ofSets ?? ofStrikes).find((one) => one.id === id)?.change;
  const [a, b] = [before.readings[id], after.readings[id]];
  const base = { name, then: saidThen(judged, a), now: isAbsent(b) ? null : say(b) };
  if (!change) return { ...base, verdict: null, why: 'it was measured in neither film' };
  return 'verdict' in change
    ? { ...base, verdict: change.verdict, why: null }
    : { ...base, verdict: null, why: change.notComparable };
}

/** As the strike has it whole; else as it was judged, of which a part is the least that it was. */
function saidThen({ then, mayBePart }: JudgedThen, whole: Measured | undefined): string {
  if (whole && !isAbsent(whole)) return say(whole);
  return whole && mayBePart ? `at least ${say(then)}` : say(then);
}

/** A strike with those of its kind in its film. */
function sideOf(strike: MeasuredStrike, all: readonly MeasuredStrike[]): Side {
  const set = all.filter(({ clipId, side }) => clipId === strike.clipId && side === strike.side);
  return { strike, set };
}

const firstOf = ({ clipId }: MeasuredStrike, all: readonly MeasuredStrike[]) =>
  all.find((one) => one.clipId === clipId)!;

const EVENT_WORDS: Partial<Record<AnyEvent, string>> = {
  hips: 'hips start',
  trunk: 'trunk starts',
  arm: 'arm starts',
  contact: 'contact',
};

async function pictureOf(
  db: Db,
  cue: Cue,
  judged: Awaited<ReturnType<typeof judgedOf>>,
): Promise<CardPicture | null> {
  const input = (await clipInputOf(db, cue.clipId))?.clip;
  const strike = input?.document.strikes.find(({ id }) => id === cue.strikeId);
  const clip = await db
    .selectFrom('clip')
    .select(['id', 'width', 'height', 'purged_at'])
    .where('id', '=', cue.clipId)
    .executeTakeFirst();
  if (!input || !strike || !clip || clip.purged_at !== null) return null;
  const { document, film } = input;
  const { events, readings, facts } = measureInClip(input, strike);
  const evidence = judged && evidenceOf(judged.id, facts.strike);
  const reading = judged && readings[judged.id];
  const shown = judged?.then.frames ?? [];
  const frame = shown[shown.length - 1] ?? events.contact?.frame ?? 0;
  const times = realFrameTimes(film.frameTimes, document.captureRate);
  const instants = Object.values(events).map(({ time }) => time);
  const base = {
    clip: { id: clip.id, width: clip.width, height: clip.height },
    frame,
    strike: [
      nearestFrame(times, Math.min(times[frame]!, ...instants) - AROUND),
      nearestFrame(times, Math.max(times[frame]!, ...instants) + AROUND),
    ] as const,
    contact: events.contact?.frame ?? frame,
    captureRate: document.captureRate,
    drawings: (document.drawings ?? []).filter((one) => one.frame === frame),
  };
  const label = reading && !isAbsent(reading) ? say(reading) : '';
  if (evidence && 'span' in evidence) {
    const [from, to] = evidence.span;
    const [a, b] = [events[from], events[to]];
    const span =
      a && b
        ? {
            names: [EVENT_WORDS[from] ?? from, EVENT_WORDS[to] ?? to] as const,
            seconds: b.time - a.time,
          }
        : null;
    return { ...base, lines: [], label, span };
  }
  const { track } = trackFrom(film.tracked ?? cleanDetections([], times), document, film.height);
  const at = (landmark: Landmark): PixelPoint | null => {
    const points = track.points[landmark];
    return points ? placeAt(points, times, times[frame]!) : null;
  };
  return { ...base, lines: evidence ? linesOf(evidence, at) : [], label, span: null };
}

function linesOf(
  evidence: Exclude<Evidence, { span: unknown }>,
  at: (landmark: Landmark) => PixelPoint | null,
): PixelPoint[][] {
  const whole = (landmarks: readonly Landmark[]) => {
    const points = landmarks.flatMap((landmark) => at(landmark) ?? []);
    return points.length === landmarks.length ? [points] : [];
  };
  if ('angle' in evidence) return whole(evidence.angle);
  if ('lines' in evidence) return evidence.lines.flatMap(whole);
  return [];
}
