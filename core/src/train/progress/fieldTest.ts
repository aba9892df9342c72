/** Tests with a tape, a scale and a bag: what is measured, and what follows from it. */
import { z } from 'zod';
import {
  bagImpulse,
  bagPeriod,
  meanForce,
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

export const fieldTestSchema = z.discriminatedUnion('kind', [throwSchema, bagSchema, ladderSchema]);
export type FieldTest = z.infer<typeof fieldTestSchema>;
export type FieldTestKind = FieldTest['kind'];

/** What cannot be as it was typed, in words for the coach; null when all can. */
export function fieldTestProblem(test: FieldTest): string | null {
  return test.kind === 'throw' && test.seated.value > test.standing.value
    ? 'The seated throw goes farther than the standing one: are the two swapped?'
    : null;
}

export const FIELD_TESTS: Readonly<Record<FieldTestKind, string>> = {
  throw: 'Seated and standing throw',
  bag: 'Bag as a pendulum',
  ladder: 'Reach ladder',
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
