/** Where practitioners disagree, as data: each choice is made on purpose, none silently. */
import { z } from 'zod';

const choiceSchema = z.object({
  /** The question on which they part. */
  name: z.string(),
  choices: z.array(z.object({ id: z.string(), name: z.string() })).min(2),
  /** The first choice of a gym that has not chosen. */
  usual: z.string(),
  /** What changes with it. */
  changes: z.string(),
});

export type Choice = z.infer<typeof choiceSchema>;

const choices = (all: Record<string, string>) =>
  Object.entries(all).map(([id, name]) => ({ id, name }));

/** Choices by key; the usual one of each is one of its choices. */
export const SCHOOLS: Readonly<Record<string, Choice>> = z
  .record(z.string(), choiceSchema)
  .refine((all) =>
    Object.values(all).every((one) => one.choices.some(({ id }) => id === one.usual)),
  )
  .parse({
    readingOrder: {
      name: 'Order of reading the body',
      choices: choices({
        'ground-up': 'from the ground up',
        'top-down': 'from the shoulders down',
      }),
      usual: 'ground-up',
      changes: 'Which leak is named first when their costs cannot be told apart.',
    },
    hookFist: {
      name: 'Fist in the hook',
      choices: choices({
        'by-range': 'by range',
        'thumb-up': 'thumb up',
        'palm-down': 'palm down',
      }),
      usual: 'by-range',
      changes: 'How the knuckles and the forearm of a hook are expected to lie.',
    },
    hookFoot: {
      name: 'Lead foot in the hook',
      choices: choices({
        'by-situation': 'by situation',
        pivot: 'pivot the foot',
        plant: 'plant the foot',
      }),
      usual: 'by-situation',
      changes: 'Whether the lead foot of a hook should turn or stay.',
    },
    weight: {
      name: 'Weight at ready',
      choices: choices({
        centred: 'centred',
        'rear-60': '60 rear, 40 front',
        forward: 'forward onto a lunge',
      }),
      usual: 'centred',
      changes: 'How the weight is expected to be split in guard.',
    },
    supportHeel: {
      name: 'Support foot',
      choices: choices({ 'set-down': 'set down flat', 'on-the-balls': 'on the balls of the feet' }),
      usual: 'set-down',
      changes: 'Whether a support foot that turns or slides is a leak.',
    },
    stepTiming: {
      name: 'Fist and landing foot',
      choices: choices({
        'before-or-with': 'fist before or with the foot',
        'both-feet': 'fist as both feet land',
        'foot-first': 'foot first, then the turn',
      }),
      usual: 'before-or-with',
      changes: 'Whether a fist that lands after the foot is a leak.',
    },
    hipAction: {
      name: 'Hips',
      choices: choices({ 'turn-through': 'turn through', whip: 'whip out and back' }),
      usual: 'turn-through',
      changes: 'Whether the pelvis is expected open or square again at contact.',
    },
    bodyMass: {
      name: 'Body mass',
      choices: choices({
        'by-technique': 'by technique',
        drop: 'drop with the strike',
        'relax-rise-fall': 'relax, rise, fall',
        level: 'level',
        rise: 'rise with the strike',
      }),
      usual: 'by-technique',
      changes: 'Which way the body is expected to go, up, down or neither.',
    },
    finish: {
      name: 'Finish',
      choices: choices({
        'by-situation': 'by situation',
        snap: 'snap',
        dig: 'dig through',
      }),
      usual: 'by-situation',
      changes: 'Whether a long contact or a short one is a leak.',
    },
    knuckles: {
      name: 'Knuckles',
      choices: choices({ 'first-two': 'first two', 'last-three': 'last three' }),
      usual: 'first-two',
      changes: 'What the check of the knuckles asks the coach to look at.',
    },
    offHand: {
      name: 'Other hand',
      choices: choices({
        temple: 'at the temple',
        hip: 'pulled to the hip',
        'shoulder-shield': 'low, behind a high shoulder',
      }),
      usual: 'temple',
      changes: 'Whether the other hand may leave the head.',
    },
    rearHeel: {
      name: 'Rear heel at ready',
      choices: choices({ raised: 'raised', flat: 'flat' }),
      usual: 'raised',
      changes: 'Where the rear heel is expected in guard.',
    },
    fistTension: {
      name: 'Fist tension',
      choices: choices({
        'loose-until-contact': 'loose until contact',
        clenched: 'clenched all the way',
      }),
      usual: 'loose-until-contact',
      changes: 'Nothing that is measured: what the check of the fingers asks the coach to look at.',
    },
    order: {
      name: 'Hips and trunk',
      choices: choices({ 'hips-first': 'hips first', together: 'all together' }),
      usual: 'hips-first',
      changes: 'Whether hips and trunk that leave together are a leak, or hips that leave alone.',
    },
    rearLeg: {
      name: 'Rear leg in rear-hand straights',
      choices: choices({
        'as-it-comes': 'as it comes',
        bent: 'stays bent',
        straight: 'drives straight',
      }),
      usual: 'as-it-comes',
      changes: 'How the rear knee is expected at contact.',
    },
    head: {
      name: 'Head',
      choices: choices({ quiet: 'quiet over the shoulders', slips: 'slips off the line' }),
      usual: 'quiet',
      changes: 'Whether a head that leaves its place is a leak, or one that stays.',
    },
    stanceAngle: {
      name: 'Angle of the stance',
      choices: choices({ half: 'half turned, about 45°', squarer: 'squarer', bladed: 'bladed' }),
      usual: 'half',
      changes: 'How far from square the hips are expected in guard.',
    },
    jabHips: {
      name: 'Hips in the jab',
      choices: choices({ slight: 'a slight turn', none: 'none' }),
      usual: 'slight',
      changes: 'Whether a jab without the hips is a leak.',
    },
    kickArm: {
      name: 'Arm of the kicking side in round kicks',
      choices: choices({
        'as-it-comes': 'as it comes',
        swings: 'swings against the leg',
        guards: 'stays in guard',
      }),
      usual: 'as-it-comes',
      changes: 'Whether an arm that stays up is a leak, or one that swings.',
    },
    bag: {
      name: 'Bag',
      choices: choices({ quiet: 'keep it quiet', swing: 'make it swing' }),
      usual: 'quiet',
      changes: 'Nothing in a strike: how the swing of the bag is read in a bag test.',
    },
    speedGate: {
      name: 'Speed',
      choices: choices({ 'slow-first': 'slow first', any: 'any speed' }),
      usual: 'slow-first',
      changes: 'Whether an order that breaks at speed is a leak.',
    },
  });

export type School = Readonly<Record<string, string>>;

/** The name of a choice, as in "plant the foot". */
export function choiceName(key: string, choice: string): string {
  return SCHOOLS[key]?.choices.find(({ id }) => id === choice)?.name ?? choice;
}

/**
 * What was chosen, as it stands.
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
    const ids = one.choices.map(({ id }) => id);
    if (!ids.includes(choice)) {
      throw new RangeError(`${key} must be one of ${ids.join(', ')}, not "${choice}"`);
    }
  }
  return chosen;
}

/** Only those settings that exist: what an older or newer file says beside them is left out. */
export const schoolSchema = z
  .record(z.string(), z.string())
  .refine(
    (chosen) =>
      Object.entries(chosen).every(([key, choice]) =>
        SCHOOLS[key]?.choices.some(({ id }) => id === choice),
      ),
    'there is no such school',
  );
