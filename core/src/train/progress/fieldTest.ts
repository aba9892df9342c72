/** Tests with a tape, a scale, a bag and a pad: what is measured, and what follows from it. */
import { z } from 'zod';
import {
  aimOf,
  bagImpulse,
  bagPeriod,
  impactSpeed,
  meanForce,
  rangeLeft,
  reachPair,
  throwLegs,
  type Quantity,
} from '../../measure/measures/beyond';
import { isAbsent, type Measured } from '../../foundation/reading/reading';
import { say } from '../../foundation/reading/say';
import { TECHNIQUES, techniqueById } from '../../foundation/technique/techniques';
import { bestForms } from './ladder';

/** Value and ± (95 %) as people write them down. */
const known = (low: number, high: number) =>
  z.object({ value: z.number().min(low).max(high), plusMinus: z.number().min(0).max(high) });
type Known = z.infer<ReturnType<typeof known>>;

const degree = Math.PI / 180;
const quantity = ({ value, plusMinus }: Known, factor = 1): Quantity => ({
  value: value * factor,
  sigma: (plusMinus * factor) / 1.96,
});

const throwSchema = z.object({
  kind: z.literal('throw'),
  /** Metres. */
  standing: known(0.1, 60),
  seated: known(0.1, 60),
});

const bagSchema = z.object({
  kind: z.literal('bag'),
  /** Kilograms; metres; metres; metres. */
  mass: known(1, 300),
  length: known(0.2, 3),
  radius: z.number().min(0.02).max(1),
  chain: z.number().min(0).max(5),
  /** Where the blow landed, metres below the hook. */
  below: known(0.1, 6),
  /** Largest angle from hanging, degrees. */
  swing: known(0.1, 89),
  /** Milliseconds; null when nobody has measured it. */
  contact: known(1, 500).nullable(),
});

const ladderSchema = z.object({
  kind: z.literal('ladder'),
  rungs: z
    .array(
      z.object({
        /** Rear foot to target, metres. */
        distance: z.number().min(0.1).max(4),
        form: z.enum(TECHNIQUES.map(({ id }) => id)),
        /** Speed at contact, m/s. */
        speed: known(0, 40),
      }),
    )
    .min(2)
    .max(40),
});

/** Zones of a pad or a bag figure, and how far from their middle still counts, metres (common practice, no source). */
export const AIMS = {
  chin: { name: 'Tip of the chin', zone: 0.04 },
  plexus: { name: 'Solar plexus', zone: 0.06 },
  liver: { name: 'Liver', zone: 0.07 },
  ribs: { name: 'Ribs', zone: 0.1 },
} as const;
export type AimName = keyof typeof AIMS;
/** Half of the board on which contacts are written down, metres. */
export const BOARD = 0.25;

const offset = z.number().min(-BOARD).max(BOARD);
const aimSchema = z.object({
  kind: z.literal('aim'),
  aim: z.enum(Object.keys(AIMS) as [AimName, ...AimName[]]),
  /** Contacts from the middle of the zone, metres across and up. */
  points: z
    .array(z.object({ across: offset, up: offset }))
    .min(3)
    .max(100),
  /** How exactly they were written down, metres. */
  plusMinus: z.number().min(0).max(0.1),
});

const rangeSchema = z.object({
  kind: z.literal('range'),
  /** Degrees of turn: slow and without load, and in the strike at full speed. */
  free: known(1, 200),
  used: known(0, 200),
});

const pairSchema = z.object({
  kind: z.literal('pair'),
  /** Metres from the rear foot to contact. */
  rear: known(0.2, 4),
  lead: known(0.2, 4),
});

const closingSchema = z.object({
  kind: z.literal('closing'),
  /** Metres a second of the strike at contact, in the room. */
  strike: known(0.1, 40),
  /** What the target went in a time, before contact: metres, positive = toward the strike; seconds. */
  way: z.object({ value: z.number().min(-5).max(5), plusMinus: z.number().min(0).max(5) }),
  time: known(0.005, 5),
});

export const fieldTestSchema = z.discriminatedUnion('kind', [
  throwSchema,
  bagSchema,
  ladderSchema,
  aimSchema,
  pairSchema,
  rangeSchema,
  closingSchema,
]);
export type FieldTest = z.infer<typeof fieldTestSchema>;
export type FieldTestKind = FieldTest['kind'];

/** What cannot be as it was typed, in words for the coach; null when all can. */
export function fieldTestProblem(test: FieldTest): string | null {
  if (test.kind === 'throw' && test.seated.value > test.standing.value) {
    return 'The seated throw goes farther than the standing one: are the two swapped?';
  }
  const { kind } = test;
  if (
    kind === 'range' &&
    test.used.value - test.used.plusMinus > test.free.value + test.free.plusMinus
  ) {
    return 'The strike turns farther than the slow turn: turn slowly as far as it goes, without a load.';
  }
  return null;
}

export const FIELD_TESTS: Readonly<Record<FieldTestKind, string>> = {
  throw: 'Seated and standing throw',
  bag: 'Bag as a pendulum',
  ladder: 'Reach ladder',
  aim: 'Aim',
  pair: 'Reach of both hands',
  range: 'Turn left over',
  closing: 'Moving target',
};

export interface Result {
  readonly name: string;
  readonly measured: Measured;
  /** In words, with ± or the reason why not. */
  readonly text: string;
}

const shown = (name: string, measured: Measured): Result => ({
  name,
  measured,
  text: isAbsent(measured) ? measured.absent : say(measured),
});

/** What follows from a test, first the one number that it is for. */
export function resultsOf(test: FieldTest): Result[] {
  switch (test.kind) {
    case 'throw':
      return [
        shown(
          'What the legs add to the speed',
          throwLegs(quantity(test.standing), quantity(test.seated)),
        ),
      ];
    case 'bag':
      return bagResults(test);
    case 'aim':
      return aimResults(test);
    case 'pair':
      return [shown('Rear hand ÷ lead hand', reachPair(quantity(test.rear), quantity(test.lead)))];
    case 'range':
      return [
        shown(
          'Turn that the strike leaves unused',
          rangeLeft(quantity(test.free, degree), quantity(test.used, degree)),
        ),
      ];
    case 'closing': {
      const closing = speedOf(test.way, test.time);
      return [
        shown('Speed at which they meet', impactSpeed(quantity(test.strike), closing)),
        shown('Of it the target’s', {
          ...closing,
          unit: 'm/s',
          source: 'eye',
          frames: [],
        }),
      ];
    }
    case 'ladder':
      return bestForms(
        test.rungs.map(({ distance, form, speed }) => {
          const { value, sigma } = quantity(speed);
          return { distance, form, value, sigma };
        }),
      ).map(({ distance, best, value, sigma }) => ({
        name: `At ${Math.round(100 * distance)} cm`,
        measured: { value, sigma, unit: 'm/s', source: 'eye', frames: [] },
        text:
          best.map((id) => techniqueById(id).name).join(' or ') +
          (best.length > 1 ? ', which cannot be told apart' : ''),
      }));
  }
}

function aimResults({ aim, points, plusMinus }: z.infer<typeof aimSchema>): Result[] {
  const sigma = plusMinus / 1.96;
  const found = aimOf(
    points.map(({ across, up }) => [
      { value: across, sigma },
      { value: up, sigma },
    ]),
    AIMS[aim].zone,
  );
  if (isAbsent(found)) return [shown('Inside the zone', found)];
  const inside = points.filter(({ across, up }) => Math.hypot(across, up) <= AIMS[aim].zone).length;
  return [
    // Of so few a share has a ± of tens of per cent: the count says it better.
    { ...shown('Inside the zone', found.inside), text: `${inside} of ${points.length}` },
    shown('Middle of the set off the aim', found.offset),
    shown('Spread about its own middle', found.spread),
  ];
}

/** Way ÷ time, with the ± of both. */
function speedOf(way: { value: number; plusMinus: number }, time: Known): Quantity {
  const [far, long] = [quantity(way), quantity(time)];
  const value = far.value / long.value;
  return { value, sigma: Math.hypot(far.sigma, value * long.sigma) / long.value };
}

function bagResults(test: z.infer<typeof bagSchema>): Result[] {
  const { radius, chain } = test;
  const bag = { mass: quantity(test.mass), length: quantity(test.length), radius, chain };
  const impulse = bagImpulse(bag, quantity(test.swing, degree), quantity(test.below));
  const force =
    test.contact === null
      ? { absent: 'How long the fist stays on the bag is not known.' }
      : isAbsent(impulse)
        ? impulse
        : meanForce(impulse, quantity(test.contact, 1e-3));
  return [
    shown('Impulse', impulse),
    shown('Mean force', force),
    shown('Period of a small swing, to check with a watch', bagPeriod(bag)),
  ];
}
