/** Where practitioners disagree, as data: each choice is made on purpose, none silently. */
import { z } from 'zod';

const choiceSchema = z.object({
  name: z.string(),
  choices: z.array(z.string()).min(2),
  /** The first choice of a gym that has not chosen. */
  fallback: z.string(),
});

/** Choices by key; the fallback of each is one of its choices. */
export const SCHOOLS = z
  .record(z.string(), choiceSchema)
  .refine((all) => Object.values(all).every((one) => one.choices.includes(one.fallback)))
  .parse({
    readingOrder: {
      name: 'Order of reading the body',
      choices: ['ground-up', 'top-down'],
      fallback: 'ground-up',
    },
    hookFist: {
      name: 'Fist in the hook',
      choices: ['thumb-up', 'palm-down', 'by-range'],
      fallback: 'by-range',
    },
    hookFoot: {
      name: 'Lead foot in the hook',
      choices: ['pivot', 'plant', 'by-situation'],
      fallback: 'by-situation',
    },
    weight: {
      name: 'Weight at ready',
      choices: ['centred', 'rear-60', 'forward'],
      fallback: 'centred',
    },
    supportHeel: {
      name: 'Support heel',
      choices: ['set-down', 'on-the-balls'],
      fallback: 'set-down',
    },
    stepTiming: {
      name: 'Fist and landing foot',
      choices: ['before-or-with', 'both-feet', 'foot-first'],
      fallback: 'before-or-with',
    },
    hipAction: { name: 'Hips', choices: ['turn-through', 'whip'], fallback: 'turn-through' },
    bodyMass: {
      name: 'Body mass',
      choices: ['by-technique', 'drop', 'relax-rise-fall', 'level', 'rise'],
      fallback: 'by-technique',
    },
    finish: { name: 'Finish', choices: ['snap', 'dig'], fallback: 'snap' },
    knuckles: { name: 'Knuckles', choices: ['first-two', 'last-three'], fallback: 'first-two' },
    offHand: {
      name: 'Other hand',
      choices: ['temple', 'hip', 'shoulder-shield'],
      fallback: 'temple',
    },
    rearHeel: { name: 'Rear heel at ready', choices: ['raised', 'flat'], fallback: 'raised' },
    fistTension: {
      name: 'Fist tension',
      choices: ['loose-until-contact', 'clenched'],
      fallback: 'loose-until-contact',
    },
    jabHips: { name: 'Hips in the jab', choices: ['none', 'slight'], fallback: 'slight' },
    bag: { name: 'Bag', choices: ['quiet', 'swing'], fallback: 'quiet' },
    speedGate: { name: 'Speed', choices: ['slow-first', 'any'], fallback: 'slow-first' },
  });

export type School = Readonly<Record<string, string>>;

/**
 * What was chosen, filled up with what is usual.
 *
 * @throws RangeError naming the keys or the choices there are
 */
export function schoolFrom(chosen: School): School {
  for (const [key, choice] of Object.entries(chosen)) {
    const one = SCHOOLS[key];
    if (!one) {
      throw new RangeError(
        `there is no school setting "${key}". Known: ${Object.keys(SCHOOLS).join(', ')}`,
      );
    }
    if (!one.choices.includes(choice)) {
      throw new RangeError(`${key} must be one of ${one.choices.join(', ')}, not "${choice}"`);
    }
  }
  const usual = Object.fromEntries(
    Object.entries(SCHOOLS).map(([key, { fallback }]) => [key, fallback]),
  );
  return { ...usual, ...chosen };
}
