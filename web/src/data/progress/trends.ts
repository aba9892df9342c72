/** A technique's sets by how they were filmed, and where each reading goes over time. */
import { group } from 'd3-array';
import { INTENT_NAMES, type Intent } from '@sinew/core/foundation/drill/intent';
import { isAbsent, type Unit } from '@sinew/core/foundation/reading/reading';
import { say } from '@sinew/core/foundation/reading/say';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import {
  MEASURE_IDS,
  MEASURE_NAMES,
  type MeasureId,
} from '@sinew/core/measure/measures/allMeasures';
import { unitOf } from '@sinew/core/measure/measures/units';
import { wantedIn, type Judging, type Wanted } from '@sinew/core/train/progress/change';
import { trendOf, type DatedValue } from '@sinew/core/train/progress/trend';
import type { MeasuredSet } from '../finding/measuredSets';

export interface SetPoint extends DatedValue {
  readonly clipId: string;
  readonly strikeId: string;
  readonly strikes: number;
  /** Null where the film is gone. */
  readonly film: {
    /** Contact of the first strike on the film's own clock, seconds; null where it is not marked. */
    readonly contactAt: number | null;
  } | null;
}

export interface Track {
  readonly id: MeasureId;
  readonly name: string;
  readonly unit: Unit;
  readonly wanted: Wanted;
  readonly points: readonly SetPoint[];
}

/** Sets that may be compared: one side, one view, one intent. As short as it travels to the page. */
export interface Alike {
  readonly key: string;
  /** "right, from the side, full speed". */
  readonly label: string;
  readonly sets: readonly Omit<SetPoint, 'value' | 'sigma'>[];
  /** Value and σ of a reading in each set; null where there is none. */
  readonly values: readonly {
    readonly id: MeasureId;
    readonly wanted: Wanted;
    readonly inSets: readonly (readonly [number, number] | null)[];
  }[];
  /** Readings that get better or worse, as sentences. */
  readonly goes: readonly { readonly id: MeasureId; readonly sentence: string }[];
}

/** A reading over the sets that have it; null where none has. */
export function trackOf(
  { sets, values }: Pick<Alike, 'sets' | 'values'>,
  asked: string | undefined,
): Track | null {
  const found = values.find(({ id }) => id === asked);
  if (!found) return null;
  const { id, wanted, inSets } = found;
  return {
    id,
    wanted,
    name: MEASURE_NAMES[id],
    unit: unitOf(id),
    points: sets.flatMap((set, i) => {
      const known = inSets[i];
      return known ? [{ ...set, value: known[0], sigma: known[1] }] : [];
    }),
  };
}

function goingIn(alike: Pick<Alike, 'sets' | 'values'>): Alike['goes'] {
  return alike.values
    .map(({ id }) => ({ id, sentence: trendSentence(trackOf(alike, id)!) }))
    .filter(({ sentence }) => /: (better|worse)\.$/.test(sentence));
}

/** The largest group first. */
export function alikeOf(
  sets: readonly MeasuredSet[],
  technique: string,
  judging: Judging,
  filmOf: (clipId: string, strikeId: string) => SetPoint['film'],
): Alike[] {
  const wanted = wantedIn(technique, judging);
  const groups = group(sets, ({ side, view, intent }) => `${side} ${view} ${intent ?? ''}`);
  return [...groups]
    .map(([key, same]): Alike => {
      const { side, view, intent } = same[0]! as {
        side: string;
        view: View;
        intent: Intent | null;
      };
      const meant = intent ? INTENT_NAMES[intent] : 'how hard: not said';
      const seen = {
        key,
        label: [side, VIEW_GUIDE[view].name.toLowerCase(), meant].join(', '),
        sets: same.map(({ day, clipId, strikes }) => ({
          day,
          clipId,
          strikeId: strikes[0]!.id,
          strikes: strikes.length,
          film: filmOf(clipId, strikes[0]!.id),
        })),
        values: MEASURE_IDS.flatMap((id) => {
          const inSets = same.map(({ readings }) => {
            const reading = readings[id];
            return isAbsent(reading) ? null : ([reading.value, reading.sigma] as const);
          });
          if (inSets.every((one) => one === null)) return [];
          return [{ id, wanted: wanted(id), inSets }];
        }),
      };
      return { ...seen, goes: goingIn(seen) };
    })
    .sort((a, b) => b.sets.length - a.sets.length);
}

/** The trend as a sentence, for the head of its chart. */
export function trendSentence({ name, unit, wanted, points }: Track): string {
  const trend = trendOf(points);
  if (points.length < 3) {
    return `${name}: ${points.length === 1 ? 'one set' : `${points.length} sets`}; three tell a trend.`;
  }
  if (!trend) return `${name}: all of one day; a trend takes weeks.`;
  const { perWeek, halfWidth, isReal } = trend;
  const size = { value: Math.abs(perWeek), sigma: halfWidth / 1.96, unit };
  const amount = `${say({ ...size, source: 'eye', frames: [] })} a week`;
  if (!isReal) return `${name}: no change you can claim (${amount}).`;
  const way = perWeek > 0 ? 'rises' : 'falls';
  const isGood = wanted === 'more' ? perWeek > 0 : wanted === 'less' ? perWeek < 0 : null;
  return `${name} ${way} ${amount}${isGood === null ? '' : isGood ? ': better' : ': worse'}.`;
}
