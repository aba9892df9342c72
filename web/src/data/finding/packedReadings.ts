/** A strike's readings as text short enough to keep fifty thousand of them. */
import {
  MEASURE_IDS,
  type MeasureId,
  type Readings,
} from '@sinew/core/measure/measures/allMeasures';
import { unitOf } from '@sinew/core/measure/measures/units';
import { isAbsent, type Measured, type Source } from '@sinew/core/foundation/reading/reading';

/** Kept by its place: new ones go to the end. */
const SOURCES: readonly Source[] = [
  'measured-3d',
  'measured-2d',
  'estimated-3d',
  'eye',
  'measured-band',
];

/** A reading as `[value, σ, source, size]`, the last where limits go with it, or the reason why there is none; foreign ones are left out. */
type Kept = Partial<Record<MeasureId, readonly [number, number, number, number?] | string>>;

/** Frames are left out, and what would help where a reading is absent. */
export function packed(readings: Readings): string {
  const round = (value: number) => Number(value.toPrecision(6));
  const kept: Kept = {};
  for (const [id, one] of Object.entries(readings) as [MeasureId, Measured][]) {
    if (!isAbsent(one)) {
      const known = [round(one.value), round(one.sigma), SOURCES.indexOf(one.source)] as const;
      kept[id] = one.size === undefined ? known : [...known, round(one.size)];
    } else if (!one.isNotApplicable) kept[id] = one.absent;
  }
  return JSON.stringify(kept);
}

const NONE: readonly number[] = [];
const NOT_APPLICABLE: Measured = {
  absent: 'This strike has no such reading.',
  isNotApplicable: true,
};
const UNITS = new Map(MEASURE_IDS.map((id) => [id, unitOf(id)]));

/** Every reading absent as foreign: what is kept is written over it. */
const NOTHING = Object.fromEntries(MEASURE_IDS.map((id) => [id, NOT_APPLICABLE])) as Readings;

/** The inverse of `packed`. Checked by hand: a ledger unpacks tens of thousands of them. */
export function unpacked(text: string): Readings {
  const kept = JSON.parse(text) as Kept;
  const readings: Record<MeasureId, Measured> = { ...NOTHING };
  for (const key in kept) {
    const id = key as MeasureId;
    const unit = UNITS.get(id);
    // A reading that this version no longer knows.
    if (unit === undefined) continue;
    const one = kept[id]!;
    if (typeof one === 'string') readings[id] = { absent: one };
    else {
      const [value, sigma, source, size] = one;
      const known = { value, sigma, unit, source: SOURCES[source] ?? 'eye', frames: NONE };
      readings[id] = size === undefined ? known : { ...known, size };
    }
  }
  return readings;
}
