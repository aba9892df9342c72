/** Sessions as the timer runs them: blocks of rounds, holds and counted work, taken apart into segments. */
import { z } from 'zod';
import { CAUTIONS, DEMANDS } from '../../foundation/drill/demand';
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
  /** What it asks of a body beyond moving. */
  asks: z.array(z.enum(DEMANDS)).default([]),
  /** Looked at before the session goes on: who is not clean works slowly from there. */
  isGate: z.boolean().default(false),
});
export const sessionSchema = z.object({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().trim().min(1).max(60),
  about: z.string().max(200),
  /** What is to be heeded in all of it; empty for nothing. */
  caution: z.string().max(300).default(''),
  blocks: z.array(blockSchema).min(1).max(40),
});

export type Block = z.infer<typeof blockSchema>;
export type Session = z.infer<typeof sessionSchema>;

type BlockInput = z.input<typeof blockSchema>;

const rounds = (count: number) => Array.from({ length: count }, (_, i) => `Round ${i + 1}`);
const MINUTE = 60;
const shadow: BlockInput = {
  title: 'Shadow',
  parts: rounds(2),
  work: 3 * MINUTE,
  rest: MINUTE,
  intent: 'tempo',
};
const easy: BlockInput = { ...shadow, title: 'Easy movement', parts: rounds(1), intent: 'slow' };
const warmUp: BlockInput = { ...easy, title: 'Warm-up', parts: ['Easy then quicker'], work: 300 };

/** Counted work: a part for each set, the number in front is what it asks for. */
const sets = (
  title: string,
  count: number,
  strikes: number,
  rest: number,
  intent: BlockInput['intent'] = 'slow',
): BlockInput => ({
  title,
  parts: Array.from({ length: count }, (_, i) => `${strikes} (set ${i + 1} of ${count})`),
  work: null,
  rest,
  intent,
});

const gateCheck: BlockInput = { ...sets('Gate check, filmed', 1, 5, 0), isGate: true };
/** A ramp into the hold, at the middle of the range. */
const ramps = (position: string): BlockInput => ({
  title: position,
  parts: Array.from({ length: 5 }, (_, i) => `Ramp ${i + 1} of 5`),
  work: 5,
  rest: 25,
  intent: 'slow',
  asks: ['hold'],
});

/** What a day that is to be slow is made of, after a look at the strike. */
const slowWork: BlockInput[] = [
  sets('One link alone', 4, 8, 45),
  sets('That link joined to the next', 4, 8, 45),
  sets('The whole strike, filmed', 3, 6, 60),
  easy,
];

/** Sinew's own; the coach decides. */
export const SESSIONS: readonly Session[] = z.array(sessionSchema).parse([
  {
    id: 'rounds',
    name: 'Rounds',
    about: 'Three minutes of work, one of rest, with combinations called.',
    blocks: [{ ...shadow, title: 'Rounds', isCalled: true, parts: rounds(3) }],
  },
  {
    id: 'slow-day',
    name: 'Slow day',
    about: 'One link alone, that link joined to the next, the whole strike on film. About 35 min.',
    blocks: [sets('Stance check, filmed', 1, 10, 0), ...slowWork],
  },
  {
    id: 'speed-day',
    name: 'Speed day',
    about: 'Five on film first: only a clean gate goes faster. About 40 min.',
    blocks: [
      warmUp,
      gateCheck,
      sets('At tempo', 4, 6, 45, 'tempo'),
      sets('Full speed', 5, 5, 75, 'full'),
      {
        title: 'Light band or weight, then free',
        parts: [1, 2, 3].flatMap((pair) => [`Resisted, slow: ${pair} of 3`, `Free: ${pair} of 3`]),
        work: 25,
        rest: 20,
        intent: 'tempo',
        asks: ['weights'],
      },
      easy,
    ],
  },
  {
    id: 'power-day',
    name: 'Power day',
    about:
      'Once a week, never two days running, behind an open gate. Power comes last. About 45 min.',
    blocks: [
      warmUp,
      {
        ...easy,
        title: 'Mobility',
        parts: ['Slow turns of the trunk to the left', 'Slow turns of the trunk to the right'],
        work: 30,
        rest: 5,
        asks: ['rotation'],
      },
      {
        ...easy,
        title: 'Split-stance reach, a side',
        parts: ['1', '2', '3', '4'],
        work: 20,
        rest: 5,
      },
      gateCheck,
      sets('Full speed', 3, 4, 75, 'full'),
      { ...sets('Power, one at a time, each with a reset', 5, 4, 105, 'power'), asks: ['impact'] },
      {
        ...sets('Power, its partner in a combination', 3, 4, 105, 'power'),
        asks: ['impact'],
      },
      easy,
      {
        title: 'Hands and wrists',
        parts: ['Asked: any pain?'],
        work: null,
        rest: 0,
        intent: 'slow',
      },
    ],
  },
  {
    id: 'elbow-block',
    name: 'Elbow block',
    about: 'Two forms a day, air then pad, the foot replanted between sides. About 12 min.',
    caution:
      'Elbows to the head are against many rule sets and gyms. Pads only, with the muscle side of the elbow.',
    blocks: [
      sets('First form, in the air', 2, 6, 30),
      { ...sets('First form, on the pad', 2, 6, 30, 'tempo'), asks: ['impact'] },
      sets('Second form, in the air', 2, 6, 30),
      { ...sets('Second form, on the pad', 2, 6, 30, 'tempo'), asks: ['impact'] },
    ],
  },
  {
    id: 'kick-block',
    name: 'Kick block',
    about: 'Support foot and hip at the wall, the chamber, then the whole kick. About 20 min.',
    caution: 'Never snap a kick to a straight knee in the air. Toes back; the instep on pads only.',
    blocks: [
      sets('Support foot and hip turn at the wall, a side', 6, 6, 30),
      sets('Chamber, extend, chamber', 3, 6, 45),
      sets('Whole kick, a side', 8, 4, 45, 'tempo'),
    ],
  },
  {
    id: 'fresh-and-tired',
    name: 'Fresh and tired',
    about: 'The same five strikes on film before the first round and after the last.',
    blocks: [
      sets('Fresh, filmed', 1, 5, 0),
      { ...shadow, title: 'Rounds', isCalled: true, parts: rounds(3) },
      sets('Tired, filmed', 1, 5, 0),
    ],
  },
  {
    id: 'holds',
    name: 'Holds',
    about: 'Two positions at the middle of the range, five ramps of five seconds each. Adults.',
    caution: 'Ramp up, breathe out slowly, never with held breath. Pain ends it.',
    blocks: [ramps('First position, half-way out'), ramps('Second position, half-way out')],
  },
]);

/**
 * Weight in the hand for resisted work, kg: about 1 % of the body's mass, at most 1 kg.
 *
 * Source: Sinew's own.
 */
export function handWeight(mass: number): number {
  return Math.min(1, 0.01 * mass);
}

/** A session in which a gate was not clean: as it was up to the gate, and slow work from there. */
export function madeSlow(session: Session, gate: string): Session {
  const at = session.blocks.findIndex(({ isGate, title }) => isGate && title === gate);
  if (at < 0) return session;
  const blocks = [...session.blocks.slice(0, at + 1), ...z.array(blockSchema).parse(slowWork)];
  return { ...session, name: `${session.name}, made slow`.slice(0, 60), blocks };
}

/** Before power somebody has moved for at least so long, seconds (Sinew's own). */
export const WARM_AFTER = 5 * MINUTE;

export interface Segment {
  readonly kind: 'ready' | 'work' | 'rest';
  readonly block: string;
  readonly title: string;
  /** Null: until the coach taps. */
  readonly seconds: number | null;
  readonly intent: Block['intent'];
  readonly isCalled: boolean;
  readonly asks: Block['asks'];
  readonly isGate: boolean;
}

/** Cautions of a session's own and of what its parts ask, each once. */
export function cautionsOf({ caution, blocks }: Pick<Session, 'caution' | 'blocks'>): string[] {
  const asked = DEMANDS.filter((one) => blocks.some(({ asks }) => asks.includes(one)));
  return [...(caution ? [caution] : []), ...asked.map((one) => CAUTIONS[one])];
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
    asks: [],
    isGate: false,
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
        asks: block.asks,
        isGate: block.isGate,
      },
      {
        kind: 'rest',
        block: block.title,
        title,
        seconds: block.rest,
        intent: block.intent,
        isCalled: false,
        asks: [],
        isGate: false,
      },
    ]),
  );
  const whole = [ready, ...run].filter(({ kind, seconds }) => kind !== 'rest' || seconds !== 0);
  return whole[whole.length - 1]!.kind === 'rest' ? whole.slice(0, -1) : whole;
}
