/** A clip's tracking as it is kept: what was asked for, and how far it has come. */
import { z } from 'zod';
import { MODELS } from './models';

const finite = z.number().finite();
const positive = finite.positive();

export const boxSchema = z.object({ x: finite, y: finite, width: positive, height: positive });

/** Where somebody is on a frame. */
export const personSchema = z.object({ frame: z.number().int().nonnegative(), box: boxSchema });
export type Person = z.infer<typeof personSchema>;

/** What the first, coarse pass has found. */
export const foundSchema = z.object({
  /** The student, frames ascending; frames without are missing. */
  people: z.array(personSchema).max(5000),
  /** How many people at most were in the picture at once. */
  most: z.number().int().nonnegative(),
});
export type Found = z.infer<typeof foundSchema>;

export const STATES = ['wanted', 'paused', 'done', 'failed'] as const;

export const jobSchema = z.object({
  clipId: z.string(),
  fileName: z.string(),
  model: z.enum(MODELS),
  state: z.enum(STATES),
  /** Why it failed, or what is to be said of what was done. */
  message: z.string().nullable(),
  /** Round whom the coach has drawn a box; null when the program looks for itself. */
  person: personSchema.nullable(),
  found: foundSchema.nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** What a page may ask for. */
export const requestSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('start'), model: z.enum(MODELS), person: personSchema.nullable() }),
  z.object({ kind: z.literal('pause') }),
  z.object({ kind: z.literal('resume') }),
  /** Read the worn bands anew; what was seen of the body stays. */
  z.object({ kind: z.literal('bands') }),
  z.object({ kind: z.literal('found'), found: foundSchema }),
  z.object({
    kind: z.literal('finish'),
    state: z.enum(['done', 'failed']),
    message: z.string().max(500).nullable(),
  }),
]);
export type JobRequest = z.infer<typeof requestSchema>;
