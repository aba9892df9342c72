/** What a fault is, as data: what is held against which limit, in whose school, and what to say. */
import { z } from 'zod';
import { CHECKS } from '../eye/eyeChecks';
import { drillSchema } from '../../foundation/drill/drills';
import { PHASES } from '../../measure/events/phases';
import { MEASURE_IDS } from '../../measure/measures/allMeasures';
import { SET_IDS } from '../../measure/measures/set';
import { RANGES } from '../school/resolve';
import { SCHOOLS } from '../school/schools';
import { CHAIN, TECHNIQUES } from '../../foundation/technique/techniques';

/** Readings a fault may be judged by: those of a strike, and those of a set of strikes. */
export const JUDGED_IDS = [...MEASURE_IDS, ...SET_IDS] as const;
export type JudgedId = (typeof JUDGED_IDS)[number];

const readingLimitSchema = z.object({
  reading: z.enum(JUDGED_IDS),
  /** The fault is on the far side of `value`; `outside` compares the size without its sign. */
  is: z.enum(['below', 'above', 'outside']),
  /** In the reading's own SI unit. */
  value: z.number().finite(),
  /** Within this distance beyond the limit the fault costs nothing worth naming. */
  slack: z.number().nonnegative().default(0),
  /** The limit is of something else, from which the reading is so far off in 95 of 100 bodies. */
  strays: z.number().nonnegative().default(0),
  /** A second witness: it can clear the fault, and is not waited for. */
  onlyClears: z.boolean().default(false),
  /** A reading of the part that one picture shows: it can be enough to find the fault, never to clear it. */
  partly: z.enum(JUDGED_IDS).optional(),
});
/** The coach's eye says that this drags. */
const eyeLimitSchema = z.object({ eye: z.enum(CHECKS.map(({ id }) => id)) });

export const limitSchema = z.union([readingLimitSchema, eyeLimitSchema]);

/** What a way of a leak may depend on: schools, and the range that the strike was thrown for. */
const CHOICES: Readonly<Record<string, readonly string[]>> = {
  ...Object.fromEntries(
    Object.entries(SCHOOLS).map(([key, { choices }]) => [key, choices.map(({ id }) => id)]),
  ),
  range: ['not-said', ...RANGES],
};
const whenSchema = z
  .partialRecord(z.enum(Object.keys(CHOICES)), z.array(z.string()).min(1))
  .refine(
    (when) =>
      Object.entries(when).every(([key, choices]) =>
        choices!.every((choice) => CHOICES[key]!.includes(choice)),
      ),
    'there is no such choice in that school',
  );

const techniqueIds = z.array(z.enum(TECHNIQUES.map(({ id }) => id))).min(1);

/** One way in which a fault shows: all its limits must be passed. The first one is quoted. */
export const caseSchema = z.object({
  /** Names the case within its fault, for good: a gym's limits are kept by it. */
  id: z
    .string()
    .regex(/^[a-z0-9-]+$/)
    .max(40)
    .default('usual'),
  /** Which of the fault's techniques it belongs to; all when not given. */
  techniques: techniqueIds.optional(),
  /** Only where the school is one of these; always when not given. */
  when: whenSchema.optional(),
  limits: z.array(limitSchema).min(1),
  /** Another case of the fault, by its name: this one is asked where that one cannot tell, if its own reading is there. */
  standsInFor: z.string().optional(),
  /** Only where the coach's eye has said something; it is not waited for. */
  onlyIfSaid: z.boolean().default(false),
  /** For how long it shows, a reading in seconds; where that is held against a limit, what is beyond it. */
  lasts: z.enum(JUDGED_IDS).optional(),
  /** `{id}` is the reading with ±, `{id:order}` a lead in words, `{limit}` the first limit. */
  evidence: z.string().min(1),
  /** Its own words to the student, where those of the fault do not fit. */
  cue: z.string().trim().min(1).max(200).optional(),
  /** What the coach is told when the reading is on the right side of the limit. */
  clear: z.string().min(1),
});

/** Names a limit within its fault, for good: its case and what it is held against. */
export function limitId(
  { id }: { readonly id: string },
  limit: z.infer<typeof limitSchema>,
): string {
  return `${id}/${'reading' in limit ? limit.reading : `eye-${limit.eye}`}`;
}

const hasNoTwins = (ids: readonly string[]) => new Set(ids).size === ids.length;

export const SCOPES = ['strike', 'pair', 'set'] as const;

/** What would be otherwise without the fault; see `cost/estimate`. */
export const REMEDIES = [
  'in-order',
  'hand-later',
  'full-turn',
  'to-reach',
  'elbow-holds',
  'drawn-in',
  'turned-away',
  'coiled',
  'comes-along',
  'carried',
  'to-the-end',
] as const;

/** What a fault may take that is no momentum at contact: what each is, is said in `cost/estimate`. */
export const PRICES = ['cover', 'warning', 'footing', 'next', 'behind'] as const;
/** Those of which seconds are the measure. */
export const TIMED_PRICES = ['cover', 'warning', 'next'] as const satisfies readonly Price[];

export const faultSchema = z.object({
  id: z
    .string()
    .regex(/^[a-z-]+$/)
    .max(60),
  name: z.string().trim().min(1).max(60),
  /** The fault as a sentence, for the head of a page. */
  headline: z.string().trim().min(1).max(120),
  techniques: techniqueIds,
  link: z.enum(CHAIN),
  phase: z.enum(PHASES.map(({ id }) => id)),
  /** Of one strike, of a strike and the next of a combination, or of a whole set. */
  scope: z.enum(SCOPES).default('strike'),
  injury: z.boolean().default(false),
  /** The fault is there when one of them is. */
  cases: z
    .array(caseSchema)
    .min(1)
    .refine((cases) => hasNoTwins(cases.map(({ id }) => id)), 'two ways of a leak have the same id')
    .refine(
      (cases) => cases.every((one) => hasNoTwins(one.limits.map((limit) => limitId(one, limit)))),
      'a way of a leak has two limits on the same reading',
    )
    .refine(
      (cases) =>
        cases.every(
          ({ standsInFor: main }) => main === undefined || cases.some(({ id }) => id === main),
        ),
      'a way of a leak stands in for none',
    ),
  why: z.string().trim().min(1).max(300),
  cue: z.string().trim().min(1, 'A cue needs words.').max(200),
  drill: z.string(),
  caution: z.string().max(300).optional(),
  /** Null: it costs something else than momentum, or the chain model has no part for it. */
  remedy: z.enum(REMEDIES).nullable().default(null),
  /** What it costs where that is not momentum. */
  costs: z.enum(PRICES).nullable().default(null),
});

export type Limit = z.infer<typeof limitSchema>;
export type ReadingLimit = z.infer<typeof readingLimitSchema>;
export type FaultCase = z.infer<typeof caseSchema>;
export type Fault = z.infer<typeof faultSchema>;
export type FaultRow = z.input<typeof faultSchema>;
export type Remedy = (typeof REMEDIES)[number];
export type Price = (typeof PRICES)[number];
export type TimedPrice = (typeof TIMED_PRICES)[number];

export function isTimedPrice(price: Price | null): price is TimedPrice {
  return TIMED_PRICES.some((one) => one === price);
}

export function isOfReading(limit: Limit): limit is ReadingLimit {
  return 'reading' in limit;
}

/** All that the coach may change: faults and drills, validated together. */
export const catalogueSchema = z
  .object({ faults: z.array(faultSchema), drills: z.array(drillSchema) })
  .refine(({ faults }) => hasNoTwins(faults.map(({ id }) => id)), 'two leaks have the same id')
  .refine(
    ({ faults, drills }) => faults.every(({ drill }) => drills.some(({ id }) => id === drill)),
    'a leak names a drill that is not there',
  )
  .refine(
    ({ faults }) =>
      faults.every(
        ({ cases, costs }) =>
          isTimedPrice(costs) || cases.every(({ lasts }) => lasts === undefined),
      ),
    'a leak lasts that does not cost time',
  );

export type Catalogue = z.infer<typeof catalogueSchema>;
