/** What the server tells every open page as it happens. */
import { z } from 'zod';

export const newsSchema = z.discriminatedUnion('kind', [
  /** A film has come. */
  z.object({ kind: z.literal('clip'), clipId: z.string(), studentId: z.string() }),
  /** What is set on a bench has been saved, and by whom. */
  z.object({ kind: z.literal('bench'), clipId: z.string(), by: z.string() }),
]);

export type News = z.infer<typeof newsSchema>;
