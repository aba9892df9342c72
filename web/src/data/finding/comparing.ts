/** Two strikes to be held against each other: what was measured, and the films where they are left. */
import { startSteps, type Step } from '@sinew/core/measure/chain/sequence';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { traces, type Trace } from '@sinew/core/reconstruct/motion/traces';
import { LONGEST_GAP } from '@sinew/core/reconstruct/motion/where';
import type { Places } from '@sinew/core/train/progress/overlay';
import { techniqueById, type Link } from '@sinew/core/foundation/technique/techniques';
import { cleanDetections, trackFrom } from '@sinew/core/observe/track/trackFromDetections';
import { placeAt } from '@sinew/core/observe/track/place';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import type { Points } from '@sinew/core/observe/track/track';
import { seenInClip } from '@sinew/core/analysis/analyzeClip';
import { clipById, type Clip } from '../clip/clips';
import type { Db } from '../database/db';
import { clipInputOf } from '../clip/clipInput';
import { strikesNow, type MeasuredStrike } from './measured';

/** A strike's film, in seconds from contact. */
export interface FilmOfStrike {
  readonly clip: Pick<Clip, 'id' | 'width' | 'height'>;
  /** Real time of every frame. */
  readonly times: readonly number[];
  /** When each link starts, and how fast it moves. */
  readonly starts: readonly Step[];
  readonly traces: Partial<Record<Link, Trace>>;
  /** Where the body is in the picture at contact, pixels. */
  readonly places: Places;
}

export interface StrikeToCompare {
  readonly strike: MeasuredStrike;
  /** Strikes of the same kind in the same film, itself among them. */
  readonly set: readonly MeasuredStrike[];
  readonly studentId: string;
  readonly fileName: string;
  /** Null when the film is gone, or contact is not known. */
  readonly film: FilmOfStrike | null;
}

/** @returns null when there is no such strike, or it cannot be measured */
export async function strikeToCompare(db: Db, strikeId: string): Promise<StrikeToCompare | null> {
  const row = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['clip.student_id', 'clip.id as clip_id', 'strike.technique'])
    .where('strike.id', '=', strikeId)
    .executeTakeFirst();
  if (!row) return null;
  const { technique, clip_id: clipId } = row;
  const [clip, { strikes: all }] = await Promise.all([
    clipById(db, clipId),
    strikesNow(db, row.student_id, { technique, clipId }),
  ]);
  const strike = all.find(({ id }) => id === strikeId);
  if (!clip || !strike) return null;
  const set = all.filter(({ side }) => side === strike.side);
  const film = clip.isPurged ? null : await filmOf(db, clip, strikeId);
  return { strike, set, studentId: row.student_id, fileName: clip.fileName, film };
}

/** Traces are drawn this far around contact, seconds. */
const AROUND = 0.7;

async function filmOf(db: Db, clip: Clip, strikeId: string): Promise<FilmOfStrike | null> {
  const found = await clipInputOf(db, clip.id);
  const strike = found?.clip.document.strikes.find(({ id }) => id === strikeId);
  if (!found || !strike) return null;
  const { document, film } = found.clip;
  const technique = techniqueById(strike.technique);
  const { events, motion } = seenInClip(found.clip, strike);
  const zero = events.contact?.time;
  if (zero === undefined) return null;
  const times = realFrameTimes(clip.frameTimes, document.captureRate);
  const { track } = trackFrom(film.tracked ?? cleanDetections([], times), document, clip.height);
  const points = Object.entries(track.points) as [Landmark, Points][];
  return {
    clip: { id: clip.id, width: clip.width, height: clip.height },
    times: times.map((time) => time - zero),
    places: Object.fromEntries(
      points.flatMap(([landmark, own]) => {
        const place = placeAt(own, times, zero, LONGEST_GAP);
        return place ? [[landmark, place]] : [];
      }),
    ),
    starts: startSteps(events, technique).map((step) => ({
      ...step,
      time: step.time - zero,
    })),
    traces: Object.fromEntries(
      Object.entries(traces(motion, technique)).map(([link, { times: own, values, unit }]) => {
        const near = own.flatMap((time, i) => (Math.abs(time - zero) <= AROUND ? [i] : []));
        const trace: Trace = {
          unit,
          times: near.map((i) => own[i]! - zero),
          values: near.map((i) => values[i]!),
        };
        return [link, trace];
      }),
    ),
  };
}
