/** Everything the coach sets on the bench for one clip, as one value that is saved whole. */
import { z } from 'zod';
import { LANDMARKS } from '../foundation/body/landmarks';
import { looksSchema } from '../judge/eye/blindLook';
import { auditSchema } from '../judge/eye/eyeChecks';
import { drawingSchema, MOST_DRAWINGS } from './drawing';
import { schoolSchema } from '../judge/school/schools';
import { RANGES, SITUATIONS, type Situation } from '../judge/school/resolve';
import { cornersOf, RECTANGLES } from '../reconstruct/calibration/calibration';
import { EVENTS } from '../measure/events/events';
import { CORRECTIONS } from '../observe/track/correction';
import { TECHNIQUES, VIEWS } from '../foundation/technique/techniques';
import { QUESTIONS } from '../foundation/technique/questions';
import { INTENTS } from '../foundation/drill/intent';

const pixel = z.object({ x: z.number().finite(), y: z.number().finite() });
const frame = z.number().int().nonnegative();

export const scaleSchema = z.object({
  from: pixel,
  to: pixel,
  metres: z.number().positive().max(100),
});
export const lineSchema = z.object({ from: pixel, to: pixel });

const metres = z.number().positive().max(100);
export const rectangleSchema = z
  .object({
    kind: z.enum(RECTANGLES),
    corners: z.array(pixel).min(4).max(8),
    width: metres,
    depth: metres,
    height: metres,
  })
  .refine(({ kind, corners }) => corners.length === cornersOf(kind), 'a corner is missing');
export const lensSchema = z.object({ bend: z.number().min(-1).max(1) });

export const azimuthSchema = z.number().min(-Math.PI).max(Math.PI);

/** How one camera stood: what is set in its picture, without what is in the picture. */
export const calibrationSchema = z.object({
  view: z.enum(VIEWS),
  /** Where the camera stood, more exactly than the view says: see `Calibration.azimuth`. */
  azimuth: azimuthSchema.optional(),
  scale: scaleSchema.nullable(),
  target: lineSchema.nullable(),
  rectangle: rectangleSchema.nullable(),
  lens: lensSchema.nullable(),
});

export type SavedCalibration = z.infer<typeof calibrationSchema>;

const techniqueSchema = z.enum(TECHNIQUES.map((technique) => technique.id));

/** What a clip was filmed for. */
export const purposeSchema = z.object({
  technique: techniqueSchema,
  question: z.enum(QUESTIONS.map((question) => question.id)).nullable(),
});

export type Purpose = z.infer<typeof purposeSchema>;

/** A stretch of the clip, frames, both included. */
export const spanSchema = z
  .object({ from: frame, to: frame })
  .refine(({ from, to }) => from <= to, 'a stretch ends before it begins');

export type Span = z.infer<typeof spanSchema>;

export const captureRateSchema = z.number().min(1).max(10_000).nullable();

export const placedSchema = z.object({
  landmark: z.enum(LANDMARKS),
  frame,
  x: z.number().finite(),
  y: z.number().finite(),
});

/** What the coach says of tracked points, beside placing them anew. */
export const correctionSchema = z
  .object({ kind: z.enum(CORRECTIONS), landmark: z.enum(LANDMARKS), from: frame, to: frame })
  .refine(({ from, to }) => from <= to, 'a stretch ends before it begins');

export const MOST_NOTE = 500;
/** The coach's own words on a film or a strike; a word behind a # is a tag. */
export const noteSchema = z.string().trim().min(1).max(MOST_NOTE);

export const strikeSchema = z.object({
  id: z.string().min(1).max(40),
  technique: techniqueSchema,
  side: z.enum(['left', 'right']),
  /** The stretch of a take that it is in; the whole clip when missing. */
  span: spanSchema.optional(),
  /** Shared by the strikes of one combination. */
  combination: z.string().min(1).max(40).optional(),
  /** Found and named by the program; missing once the coach has confirmed it. */
  isAutomatic: z.literal(true).optional(),
  /** Choices of school said of this strike, and what settles those left to the situation. */
  school: schoolSchema.optional(),
  situation: z.enum(Object.keys(SITUATIONS) as [Situation, ...Situation[]]).optional(),
  range: z.enum(RANGES).optional(),
  /** The coach's word on what no camera can judge, by checks. */
  audit: auditSchema.optional(),
  /** Who left first, as the coach saw it blind. */
  looks: looksSchema.optional(),
  note: noteSchema.optional(),
  /** Over how many frames the coach is unsure: 1 = this very frame. */
  marks: z.partialRecord(
    z.enum(EVENTS),
    z.object({ frame, width: z.number().int().min(1).max(99) }),
  ),
});

export const clipDocumentSchema = z.object({
  ...calibrationSchema.shape,
  captureRate: captureRateSchema,
  purpose: purposeSchema.nullable(),
  /** How hard it was meant, and the round it was filmed in, where somebody has said. */
  intent: z.enum(INTENTS).optional(),
  round: z.number().int().min(1).max(50).optional(),
  placed: z.array(placedSchema).max(1_000_000),
  corrections: z.array(correctionSchema).max(100_000),
  strikes: z
    .array(strikeSchema)
    .max(1000)
    .refine(
      (strikes) => new Set(strikes.map(({ id }) => id)).size === strikes.length,
      'two strikes have the same name',
    ),
  /** Stretches that looked like strikes and are none. */
  refused: z.array(spanSchema).max(1000),
  /** What the coach has drawn on frames; missing where nothing is. */
  drawings: z.array(drawingSchema).max(MOST_DRAWINGS).optional(),
  note: noteSchema.optional(),
});

export type ClipDocument = z.infer<typeof clipDocumentSchema>;
export type StrikeDocument = z.infer<typeof strikeSchema>;

/** A clip on which nothing has been set or said. */
export const EMPTY_DOCUMENT: ClipDocument = {
  view: 'side',
  captureRate: null,
  purpose: null,
  scale: null,
  target: null,
  rectangle: null,
  lens: null,
  placed: [],
  corrections: [],
  strikes: [],
  refused: [],
};

/** What the bench sends to be saved: the document, and the revision it was made from. */
export const saveRequestSchema = z.object({
  revision: z.number().int().nonnegative(),
  document: clipDocumentSchema,
});

/** Coordinates are kept to an eighth of a pixel, which a 32-bit float holds exactly. */
export function toEighth(pixels: number): number {
  return Math.round(pixels * 8) / 8;
}
