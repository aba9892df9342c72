import { z } from 'zod';
import { TECHNIQUES, VIEWS } from '@sinew/core/foundation/technique/techniques';
import { azimuthSchema } from '@sinew/core/analysis/clipDocument';
import { INTENTS } from '@sinew/core/foundation/drill/intent';

/** What a take is of, kept beside it so that it can be offered again after a closed tab. */
export const takeAboutSchema = z.object({
  studentId: z.string(),
  studentName: z.string(),
  view: z.enum(VIEWS),
  azimuth: azimuthSchema.optional(),
  /** Missing where several strikes are shown. */
  technique: z.enum(TECHNIQUES.map((technique) => technique.id)).optional(),
  question: z.string().nullable(),
  /** How hard it is meant, and the round it is filmed in, where the coach has said. */
  intent: z.enum(INTENTS).optional(),
  round: z.number().int().min(1).max(50).optional(),
  /** ISO 8601. */
  startedAt: z.iso.datetime(),
});

export type TakeAbout = z.infer<typeof takeAboutSchema>;

export interface LeftTake {
  readonly id: string;
  readonly about: TakeAbout;
}
