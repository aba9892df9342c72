import { z } from 'zod';
import { TECHNIQUES, VIEWS } from '@sinew/core/technique/catalogue';

/** What a take is of, kept beside it so that it can be offered again after a closed tab. */
export const takeAboutSchema = z.object({
  studentId: z.string(),
  studentName: z.string(),
  view: z.enum(VIEWS),
  technique: z.enum(TECHNIQUES.map((technique) => technique.id)),
  question: z.string().nullable(),
  /** ISO 8601. */
  startedAt: z.iso.datetime(),
});

export type TakeAbout = z.infer<typeof takeAboutSchema>;

export interface LeftTake {
  readonly id: string;
  readonly about: TakeAbout;
}
