/**
 * Strikes of one kind in one film, and what they measure together. The medians are kept beside the strikes'
 * own readings: each says of which strikes, measured when, it is, and one that says something else is
 * worked out again.
 */
import { createHash } from 'node:crypto';
import { group } from 'd3-array';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import type { Side } from '@sinew/core/foundation/body/landmarks';
import { medianReadings } from '@sinew/core/measure/measures/set';
import type { Circumstances } from '@sinew/core/train/progress/change';
import { COLUMNS } from '../database/columns';
import { now, stamps, type Db } from '../database/db';
import { dayIn } from '../database/today';
import type { Shows } from './foundFaults';
import { isKept, strikesNow, strikesOf } from './measured';
import { packed, unpacked } from './packedReadings';

export interface MeasuredSet extends Circumstances {
  readonly clipId: string;
  readonly day: Day;
  readonly round: number | null;
  readonly strikes: readonly { readonly id: string; readonly shows: Shows }[];
  /** The median of each reading. */
  readonly readings: Readings;
}

export interface SetsNow {
  /** Oldest first. */
  readonly sets: readonly MeasuredSet[];
  /** Strikes that there was no time to measure. */
  readonly left: number;
}

/**
 * Sets as they are now, whether that is kept yet or not. Nothing is written.
 *
 * @param milliseconds that may be spent on what is not kept
 */
export async function setsNow(
  db: Db,
  studentId: string,
  milliseconds = Infinity,
): Promise<SetsNow> {
  if (await isKept(db, studentId)) {
    const { kinds, medians } = await keptSets(db, studentId);
    const sets = kinds.map((kind) => ({
      ...kind,
      readings: medians.get(keyOf(kind))?.readings ?? null,
    }));
    const missing = sets.filter(({ readings }) => readings === null);
    const anew = await mediansOf(db, missing);
    return {
      left: 0,
      sets: sets.map((set) => ({ ...set, readings: set.readings ?? anew.get(keyOf(set))! })),
    };
  }
  const { strikes, left } = await strikesNow(db, studentId, { milliseconds });
  const kinds = group(strikes, keyOf);
  return {
    left,
    sets: [...kinds.values()].map((same) => ({
      ...same[0]!,
      strikes: same,
      readings: medianReadings(same.map(({ readings }) => readings)),
    })),
  };
}

interface Kind {
  readonly clipId: string;
  readonly technique: string;
  readonly side: Side;
}

const keyOf = ({ clipId, technique, side }: Kind) => `${clipId} ${technique} ${side}`;

type WithoutReadings = Omit<MeasuredSet, 'readings'> & Kind & { readonly stamp: string };

async function keptSets(db: Db, studentId: string) {
  const [rows, kept] = await Promise.all([
    strikesOf(db, studentId).select(['measured.shows', 'measured.updated_at']).execute(),
    db
      .selectFrom('measured_set')
      .innerJoin('clip', 'clip.id', 'measured_set.clip_id')
      .select(['measured_set.clip_id as clipId', 'measured_set.technique', 'measured_set.side'])
      .select(['measured_set.stamp', 'measured_set.readings'])
      .where('clip.student_id', '=', studentId)
      .execute(),
  ]);
  const measured = rows.flatMap(({ updated_at, ...row }) =>
    updated_at === null ? [] : [{ ...row, clipId: row.clip_id, updated_at }],
  );
  const kinds = [...group(measured, keyOf).values()].map((same): WithoutReadings => {
    const { clipId, technique, side, view, intent, round, created_at } = same[0]!;
    const hash = createHash('sha1');
    for (const { id, updated_at } of same) hash.update(`${id} ${updated_at}\n`);
    return {
      ...{ clipId, technique, side, view, intent, round },
      stamp: hash.digest('base64url'),
      day: dayIn(new Date(created_at)),
      strikes: same.map(({ id, shows }) => ({
        id,
        shows: COLUMNS.measured.shows.readOr(shows, { found: [], clear: [] }),
      })),
    };
  });
  const stampOf = new Map(kinds.map((kind) => [keyOf(kind), kind.stamp]));
  const medians = new Map(
    kept
      .filter((one) => one.stamp === stampOf.get(keyOf(one)))
      .map((one) => [keyOf(one), { readings: unpacked(one.readings) }]),
  );
  return { kinds, medians };
}

async function mediansOf(db: Db, sets: readonly WithoutReadings[]): Promise<Map<string, Readings>> {
  const found = new Map<string, Readings>();
  for (const set of sets) {
    const ids = set.strikes.map(({ id }) => id);
    const rows = await db
      .selectFrom('measured')
      .select('readings')
      .where('strike_id', 'in', ids)
      .execute();
    found.set(keyOf(set), medianReadings(rows.map(({ readings }) => unpacked(readings))));
  }
  return found;
}

export interface SetToKeep extends Kind {
  readonly stamp: string;
  /** See `packedReadings.ts`. */
  readonly readings: string;
}

/** What is to be kept of a student's sets that is not kept as it is now. */
export async function setsToKeep(db: Db, studentId: string): Promise<readonly SetToKeep[]> {
  const { kinds, medians } = await keptSets(db, studentId);
  const stale = kinds.filter((kind) => !medians.has(keyOf(kind)));
  const anew = await mediansOf(db, stale);
  return stale.map((kind) => ({
    ...{ clipId: kind.clipId, technique: kind.technique, side: kind.side, stamp: kind.stamp },
    readings: packed(anew.get(keyOf(kind))!),
  }));
}

export async function keepSets(db: Db, sets: readonly SetToKeep[]): Promise<void> {
  if (sets.length === 0) return;
  await db.transaction().execute(async (trx) => {
    for (const { clipId, technique, side, stamp, readings } of sets) {
      await trx
        .insertInto('measured_set')
        .values({ clip_id: clipId, technique, side, stamp, readings, ...stamps() })
        .onConflict((conflict) =>
          conflict
            .columns(['clip_id', 'technique', 'side'])
            .doUpdateSet({ stamp, readings, updated_at: now() }),
        )
        .execute();
    }
  });
}
