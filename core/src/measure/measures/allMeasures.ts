/** Every measure by its id: the table of contents of this room. */
import type { OwnPart } from './ownSize';
import { PARTS, type Part } from '../chain/decompose';
import { isAbsent, type Absent, type Measured, type Unit } from '../../foundation/reading/reading';
import { ARM } from './arm';
import { BALANCE } from './balance';
import { PAIR, pairs, type PairId } from './between';
import type { MeasureContext } from './context';
import { FEET } from './feet';
import { GAIN } from './gain';
import { GUARD } from './guard';
import { HALF_TURN } from './halfTurn';
import { KICKING } from './kick';
import { ENERGY, energyReadings, MASS } from './mass';
import { PATH } from './path';
import { run, type Measure } from './run';
import { SEQUENCE } from './sequence';
import { partsOf, PORTIONS, speedParts, travels, type PortionId, type Shares } from './share';
import { RETURNS, STANCE } from './stance';
import { TIMING } from './timing';
import { TURN } from './turn';

/** Measures of one look each. */
const SINGLE = [
  ...TIMING,
  ...TURN,
  ...HALF_TURN,
  ...PATH,
  ...ARM,
  ...KICKING,
  ...BALANCE,
  ...FEET,
  ...GUARD,
  ...GAIN,
  ...MASS,
  ...STANCE,
  ...RETURNS,
] as const;

type SingleId = (typeof SINGLE)[number]['id'];
type PartId = `share.${Part}` | `travel.${Part}`;
export type MeasureId =
  SingleId | keyof typeof SEQUENCE | keyof typeof ENERGY | PartId | PortionId | PairId;

/** The units of measures of one look each, by their ids. */
export const SINGLE_UNITS: Readonly<Record<string, Unit>> = Object.fromEntries(
  SINGLE.map(({ id, unit }) => [id, unit]),
);

/** Readings whose limits go with a part of the body, by their ids: see `ownSize`. */
export const SIZED_BY: Readonly<Record<string, OwnPart | undefined>> = Object.fromEntries([
  ...SINGLE.map((one: Measure) => [one.id, one.sizedBy] as const),
  ['pair.heel', 'foot'],
]);

const PART_NAMES: Readonly<Record<Exclude<Part, 'other'>, string>> = {
  step: 'step',
  drive: 'rise or drop',
  pelvis: 'pelvis',
  trunk: 'trunk',
  shoulder: 'shoulder',
  elbow: 'elbow',
  wrist: 'wrist',
  thigh: 'thigh',
  shank: 'shank',
  foot: 'foot',
};

const partEntries = (kind: 'share' | 'travel', words: string) =>
  PARTS.map((part) => {
    const from = part === 'other' ? 'that no link explains' : `from the ${PART_NAMES[part]}`;
    return [`${kind}.${part}`, `${words} ${from}`] as const;
  });

/** The name of every reading, in the order in which a table shows them. */
export const MEASURE_NAMES = Object.fromEntries([
  ...SINGLE.map(({ id, name }) => [id, name] as const),
  ...Object.entries({ ...ENERGY, ...SEQUENCE }).map(([id, { name }]) => [id, name] as const),
  ...partEntries('share', 'Speed'),
  ...partEntries('travel', 'Way'),
  ...Object.entries(PORTIONS),
  ...Object.entries(PAIR),
]) as Readonly<Record<MeasureId, string>>;

const idsOf = (measures: readonly { readonly id: SingleId }[]) => measures.map(({ id }) => id);
const partIds = (kind: 'share' | 'travel'): MeasureId[] =>
  PARTS.map((part) => `${kind}.${part}` as const);

/** The readings by what they are about. */
export const MEASURE_GROUPS: readonly {
  readonly name: string;
  readonly ids: readonly MeasureId[];
}[] = [
  { name: 'Timing', ids: [...idsOf(TIMING), 'sequence.onset', 'sequence.peak'] },
  { name: 'Turn', ids: [...idsOf(TURN), ...idsOf(HALF_TURN)] },
  { name: 'Strike', ids: [...idsOf(PATH), ...idsOf(ARM), ...idsOf(KICKING)] },
  {
    name: 'Links',
    ids: [
      ...partIds('share'),
      ...partIds('travel'),
      ...(Object.keys(PORTIONS) as PortionId[]),
      ...idsOf(GAIN),
    ],
  },
  { name: 'Mass', ids: [...idsOf(MASS), 'energy', 'energy.limb'] },
  { name: 'Balance', ids: idsOf(BALANCE) },
  { name: 'Feet', ids: idsOf(FEET) },
  { name: 'Guard', ids: idsOf(GUARD) },
  { name: 'Stance', ids: [...idsOf(STANCE), ...idsOf(RETURNS)] },
  { name: 'Combination', ids: Object.keys(PAIR) as PairId[] },
];

export const MEASURE_IDS = Object.keys(MEASURE_NAMES) as MeasureId[];

export type Readings = Readonly<Record<MeasureId, Measured>>;

export function measureAll(context: MeasureContext): Readings {
  const { shares, portions } = speedParts(context);
  return Object.fromEntries([
    ...(SINGLE as readonly Measure[]).map((measure) => [measure.id, run(measure, context)]),
    ...Object.entries(energyReadings(context)),
    ...Object.entries(SEQUENCE).map(([id, { measured }]) => [id, measured(context)]),
    ...parts('share', shares, context),
    ...parts('travel', travels(context), context),
    ...Object.entries(portions),
    ...Object.entries(pairs(context)),
  ]) as Readings;
}

/** One measure alone, as `measureAll` takes it. */
export function measureOne(id: SingleId, context: MeasureContext): Measured {
  return run(
    (SINGLE as readonly Measure[]).find((one) => one.id === id)!,
    context,
  );
}

const NOT_APPLICABLE: Absent = { absent: 'This strike has no such link.', isNotApplicable: true };

function parts(
  kind: 'share' | 'travel',
  found: Shares | Absent,
  { strike }: MeasureContext,
): (readonly [string, Measured])[] {
  const own = partsOf(strike.technique);
  return PARTS.map((part) => {
    if (!own.includes(part)) return [`${kind}.${part}`, NOT_APPLICABLE] as const;
    return [`${kind}.${part}`, isAbsent(found) ? found : found[part]!] as const;
  });
}
