import { z } from 'zod';

/** What is said in a review, from and to in seconds. */
export const saidPiece = z.object({
  from: z.number().nonnegative().max(600),
  to: z.number().nonnegative().max(600),
  words: z.string().max(400),
});

export type SaidPiece = Readonly<z.infer<typeof saidPiece>>;
