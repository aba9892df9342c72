/** Findings as they are kept and sent: whole, with the readings that made them. */
import { z } from 'zod';
import { measuredSchema } from '../../foundation/reading/readingSchema';
import type { Cost } from './cost';
import type { Finding, Judged } from './finding';
import { limitSchema, TIMED_PRICES } from './schema';
import type { SetFinding } from './set';

const OUTCOMES = ['found', 'clear', 'cant-tell'] as const;

/** The limits that judged a finding, each with its reading. */
export const judgedBySchema: z.ZodType<readonly Judged[]> = z.array(
  z.object({ limit: limitSchema, measured: measuredSchema.nullable() }),
);

export const costSchema: z.ZodType<Cost> = z.union([
  z.object({
    share: z.number(),
    shareLow: z.number(),
    shareHigh: z.number(),
    lost: z.number().nullable(),
    low: z.number().nullable(),
    high: z.number().nullable(),
  }),
  z.object({
    seconds: z.number(),
    secondsLow: z.number(),
    secondsHigh: z.number(),
    of: z.enum(TIMED_PRICES),
  }),
  z.object({ unknown: z.string() }),
]);

const finding = {
  fault: z.string(),
  name: z.string(),
  way: z.string(),
  status: z.enum(OUTCOMES),
  evidence: z.string(),
  injury: z.boolean(),
  judgedBy: judgedBySchema,
  judgedAs: z.array(z.string()),
  frame: z.number().nullable(),
  cost: costSchema.nullable(),
  open: z
    .object({
      settle: z.string(),
      short: z.string().nullable(),
      // Findings kept by an earlier Sinew do not say.
      likely: z.enum(['there', 'not-there']).nullable().default(null),
    })
    .nullable(),
};

export const findingSchema: z.ZodType<Finding> = z.object(finding);

export const setFindingSchema: z.ZodType<SetFinding> = z.object({
  ...finding,
  shows: z.number(),
  told: z.number(),
  of: z.number(),
  isByMedian: z.boolean(),
  each: z.array(z.enum(OUTCOMES).nullable()),
});
