/** What a gym's file says of itself. */
import { z } from 'zod';
import { MIGRATIONS } from '../database/migrations';

export const MANIFEST = 'manifest.json';
const NAME = /^(tables\/[a-z_]+\.jsonl|clips\/[0-9a-f]{64}\.bin)$/;
/** The newest change of the tables: a file of another one is not understood. */
export const SCHEMA = Object.keys(MIGRATIONS).sort().at(-1)!;

export const manifestSchema = z.object({
  format: z.literal('sinew-gym'),
  version: z.literal(1),
  schema: z.string(),
  madeAt: z.string(),
  gym: z.string(),
  counts: z.record(z.string(), z.number().int().nonnegative()),
  files: z.record(
    z.string().regex(NAME),
    z.object({ bytes: z.number().int().nonnegative(), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
  /** Films that clips name and that were not there when the file was made. */
  missing: z.array(z.string().regex(/^[0-9a-f]{64}$/)).default([]),
});
export type Manifest = z.infer<typeof manifestSchema>;
