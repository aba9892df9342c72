/** Everything the coach sets on the bench for one clip, as one value that is saved whole. */
import { z } from 'zod';
import { LANDMARKS } from '@sinew/core/body/landmarks';
import { EVENTS } from '@sinew/core/events/events';
import { TECHNIQUES, VIEWS } from '@sinew/core/technique/catalogue';

const pixel = z.object({ x: z.number().finite(), y: z.number().finite() });
const frame = z.number().int().nonnegative();

export const scaleSchema = z.object({
  from: pixel,
  to: pixel,
  metres: z.number().positive().max(100),
});
export const lineSchema = z.object({ from: pixel, to: pixel });

export const captureRateSchema = z.number().min(1).max(10_000).nullable();

export const placedSchema = z.object({
  landmark: z.enum(LANDMARKS),
  frame,
  x: z.number().finite(),
  y: z.number().finite(),
});

export const strikeSchema = z.object({
  id: z.string().min(1).max(40),
  technique: z.enum(TECHNIQUES.map((technique) => technique.id)),
  side: z.enum(['left', 'right']),
  /** Over how many frames the coach is unsure: 1 = this very frame. */
  marks: z.partialRecord(
    z.enum(EVENTS),
    z.object({ frame, width: z.number().int().min(1).max(99) }),
  ),
});

export const benchDocumentSchema = z.object({
  view: z.enum(VIEWS),
  captureRate: captureRateSchema,
  scale: scaleSchema.nullable(),
  target: lineSchema.nullable(),
  placed: z.array(placedSchema).max(1_000_000),
  strikes: z.array(strikeSchema).max(1000),
});

export type BenchDocument = z.infer<typeof benchDocumentSchema>;
export type StrikeDocument = z.infer<typeof strikeSchema>;

/** What the bench sends to be saved: the document, and the revision it was made from. */
export const saveRequestSchema = z.object({
  revision: z.number().int().nonnegative(),
  document: benchDocumentSchema,
});

/** Coordinates are kept to an eighth of a pixel, which a 32-bit float holds exactly. */
export function toEighth(pixels: number): number {
  return Math.round(pixels * 8) / 8;
}
