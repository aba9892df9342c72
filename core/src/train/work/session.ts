/** Sessions as the timer runs them: blocks of rounds, holds and counted work, taken apart into segments. */
import { z } from 'zod';
import { INTENTS } from '../../foundation/drill/intent';

export const blockSchema = z.object({
  title: z.string().trim().min(1).max(80),
  /** One segment of work each; a round without names of its own is numbered. */
  parts: z.array(z.string().trim().min(1).max(80)).min(1).max(60),
  /** Seconds of work; null for work that is counted, and ends with a tap. */
  work: z.number().int().min(5).max(3600).nullable(),
  rest: z.number().int().min(0).max(600),
  intent: z.enum(INTENTS),
  /** Combinations are called in the work. */
  isCalled: z.boolean().default(false),
});
export const sessionSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().trim().min(1).max(60),
  about: z.string().max(200),
  blocks: z.array(blockSchema).min(1).max(40),
});

export type Block = z.infer<typeof blockSchema>;
export type Session = z.infer<typeof sessionSchema>;

const rounds = (count: number) => Array.from({ length: count }, (_, i) => `Round ${i + 1}`);
const HOLDS = [
  'Jab, half-way',
  'Cross, half-way',
  'Lead hook to the head, half-way',
  'Lead hook to the body, half-way',
  'Rear hook to the head, half-way',
  'Rear hook to the body, half-way',
];
const MINUTE = 60;
const shadow: z.input<typeof blockSchema> = {
  title: 'Shadow',
  parts: rounds(2),
  work: 3 * MINUTE,
  rest: MINUTE,
  intent: 'tempo',
};
const contrast: z.input<typeof blockSchema>[] = [
  shadow,
  { ...shadow, title: 'Light hand weights' },
  { ...shadow, title: 'Empty-handed, fast', intent: 'full' },
];
const holds: z.input<typeof blockSchema> = {
  title: 'Isometric holds against a wall',
  parts: HOLDS,
  work: 30,
  rest: 15,
  intent: 'slow',
};
const counted = (title: string, ...parts: string[]): z.input<typeof blockSchema> => ({
  title,
  parts,
  work: null,
  rest: 0,
  intent: 'slow',
});

/** Common practice, no source. */
export const SESSIONS: readonly Session[] = z.array(sessionSchema).parse([
  {
    id: 'rounds',
    name: 'Rounds',
    about: 'Three minutes of work, one of rest, with combinations called.',
    blocks: [{ ...shadow, title: 'Rounds', isCalled: true, parts: rounds(3) }],
  },
  {
    id: 'contrast',
    name: 'Contrast rounds',
    about: 'Two rounds of shadow, two with light hand weights, two empty-handed and fast.',
    blocks: contrast,
  },
  {
    id: 'holds',
    name: 'Isometric holds',
    about: 'The half-way position of six punches, 30 s each, ball or pad against a wall.',
    blocks: [holds],
  },
  {
    id: 'elbow-five',
    name: 'Elbow five minutes',
    about: 'Each elbow form 30 s, through the pad.',
    blocks: [
      {
        title: 'Elbows',
        parts: ['Round', 'Reverse', 'Rising', 'Dropping', 'Uppercut', 'Thrust', 'Spinning'],
        work: 30,
        rest: 10,
        intent: 'tempo',
      },
    ],
  },
  {
    id: 'slow-day',
    name: 'Slow day',
    about: 'Link by link in build order, straights 20 a side, one combination at tempo.',
    blocks: [
      counted('Links, alone', 'Feet', 'Hips', 'Back and shoulder', 'Elbow', 'Knuckles'),
      counted('Straights, counted aloud', '20 in your stance', '20 in the other stance'),
      { ...shadow, title: 'One combination', isCalled: true, parts: rounds(1) },
    ],
  },
  {
    id: 'power-day',
    name: 'Power day',
    about: 'At most a few times, at least once a week. Wrap, glove, warm up; power comes last.',
    blocks: [
      counted('Loosen', '20 full trunk rotations each side', '45 s lunge hold each leg'),
      ...contrast,
      holds,
      {
        ...counted(
          'Bag, one at a time, with a reset',
          '50 jabs',
          '50 crosses',
          '25 lead hooks to the body',
          '25 lead hooks to the head',
          '25 rear hooks to the body',
          '25 rear hooks to the head',
        ),
        intent: 'power',
      },
      { ...shadow, title: 'Easy shadow', parts: rounds(1), intent: 'slow' },
    ],
  },
]);

/**
 * Hand weights for contrast rounds, kg: 1 kg for most, never above 2.5 % of the body's mass.
 *
 * Source: common practice, no publication (its heavy example: 2.3 kg at 91 kg).
 */
export function handWeights(mass: number): { readonly usual: number; readonly most: number } {
  const most = 0.025 * mass;
  return { usual: Math.min(1, most), most };
}

export interface Segment {
  readonly kind: 'ready' | 'work' | 'rest';
  readonly block: string;
  readonly title: string;
  /** Null: until the coach taps. */
  readonly seconds: number | null;
  readonly intent: Block['intent'];
  readonly isCalled: boolean;
}

export const READY_SECONDS = 10;

/** A session as one run: get ready, then work and rest by turns, no rest at the end. */
export function segmentsOf({ blocks }: Pick<Session, 'blocks'>): Segment[] {
  const first = blocks[0]!;
  const ready: Segment = {
    kind: 'ready',
    block: first.title,
    title: first.parts[0]!,
    seconds: READY_SECONDS,
    intent: first.intent,
    isCalled: false,
  };
  const run = blocks.flatMap((block) =>
    block.parts.flatMap((title): Segment[] => [
      {
        kind: 'work',
        block: block.title,
        title,
        seconds: block.work,
        intent: block.intent,
        isCalled: block.isCalled,
      },
      {
        kind: 'rest',
        block: block.title,
        title,
        seconds: block.rest,
        intent: block.intent,
        isCalled: false,
      },
    ]),
  );
  const whole = [ready, ...run].filter(({ kind, seconds }) => kind !== 'rest' || seconds !== 0);
  return whole[whole.length - 1]!.kind === 'rest' ? whole.slice(0, -1) : whole;
}
