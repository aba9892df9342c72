/** A reading as it is kept and sent: whole, with where it comes from. */
import { z } from 'zod';
import { SOURCES, UNITS, type Measured } from './reading';

const frames = z.array(z.number().int().nonnegative());

export const measuredSchema: z.ZodType<Measured> = z.union([
  z.object({
    value: z.number().finite(),
    unit: z.enum(UNITS),
    sigma: z.number().nonnegative().finite(),
    source: z.enum(SOURCES),
    frames,
    size: z.number().positive().finite().optional(),
    isElsewhere: z.literal(true).optional(),
    looks: z.number().int().positive().optional(),
  }),
  z.object({
    absent: z.string(),
    advice: z.string().optional(),
    isNotApplicable: z.literal(true).optional(),
  }),
]);
