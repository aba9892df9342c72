/**
 * Bands that a student wears round the hips and round the lower ribs: bars of black and white whose order tells
 * which part of the band is seen. From it the turn of the body is read in every frame of one film.
 */
import { z } from 'zod';

/** Metres along the band that a bar takes, and its height. */
export const BAR = 0.03;
export const BAND_HEIGHT = 0.07;

export const BANDS = ['hips', 'ribs'] as const;
export type BandName = (typeof BANDS)[number];

/**
 * The bars that Sinew prints. No eight in a row stand twice in either or in both, so that what is seen of a band
 * tells which band it is, and where; no more than three alike stand together.
 */
export const PRINTED: Readonly<Record<BandName, string>> = {
  hips: '111001101001110111000110101010110001000101011100',
  ribs: '011100111001010100010011001000111010010111010110',
};

/** Where the ends of a band meet; its triangle stands opposite. */
export const SEAMS = ['front', 'back'] as const;
export type Seam = (typeof SEAMS)[number];

/** Metres around the body where a band sits that a person may have. */
export const LEAST_GIRTH = 0.4;
export const MOST_GIRTH = 2;

/** How a band is worn. */
export const wornSchema = z.object({
  /**
   * Bars from left to right as somebody sees them who faces the band: 0 = black, 1 = white. The triangle stands
   * where its second half begins. Null where it is plain tape in uneven strips.
   */
  code: z
    .string()
    .refine((code) => codeProblem(code) === null, 'not the bars of a band')
    .nullable(),
  /** Around the body where the band sits, metres. */
  girth: z.number().min(LEAST_GIRTH).max(MOST_GIRTH),
  seam: z.enum(SEAMS),
});

export const wornBandsSchema = z.partialRecord(z.enum(BANDS), wornSchema);

export type Worn = Readonly<z.infer<typeof wornSchema>>;
export type WornBands = Readonly<z.infer<typeof wornBandsSchema>>;

/** What a student's bands are made of: Sinew's printed bars, or strips of tape stuck on as it comes. */
export const BAND_KINDS = ['printed', 'tape'] as const;
export type BandKind = (typeof BAND_KINDS)[number];

/** The bands that a student puts on. */
export interface OwnBands {
  readonly kind: BandKind;
  /** How far round, metres; null where nobody has measured it. */
  readonly girths: Readonly<Record<BandName, number | null>>;
  /** Where they close. */
  readonly seam: Seam;
}

/** The bands on a student; the one whose girth nobody has measured is not worn. */
export function wornOn({ kind, girths, seam }: OwnBands): WornBands {
  return Object.fromEntries(
    BANDS.flatMap((name) => {
      const girth = girths[name];
      const code = kind === 'tape' ? null : PRINTED[name];
      return girth === null ? [] : [[name, { code, girth, seam }] as const];
    }),
  );
}

/** Metres of the band that one number of a texture stands for. */
const GRAIN = 0.002;

/**
 * What is painted around the body: brightness from −1 to 1 over the way from the triangle, growing to the right
 * of somebody who looks at it; NaN where nothing is known to be.
 */
export interface Texture {
  readonly girth: number;
  readonly levels: Float32Array;
}

/** @throws RangeError in words when the code cannot be read as bars */
export function textureOf(code: string, girth: number): Texture {
  const problem = codeProblem(code);
  if (problem !== null) throw new RangeError(problem);
  const levels = new Float32Array(Math.round(girth / GRAIN));
  const middle = code.length / 2;
  for (let i = 0; i < levels.length; i++) {
    const round = ((i + 0.5) / levels.length - 0.5) * girth;
    const bar = code[Math.floor(middle) + Math.floor(round / BAR)];
    levels[i] = bar === undefined ? NaN : bar === '1' ? 1 : -1;
  }
  return { girth, levels };
}

/** Fewer bars do not go round a child; more are no band for a person. */
const FEWEST_BARS = 16;
const MOST_BARS = 80;

export function codeProblem(code: string): string | null {
  if (!/^[01]+$/.test(code)) return 'a band’s code is written in 0 and 1, one for each bar';
  return code.length < FEWEST_BARS || code.length > MOST_BARS
    ? `a band has ${FEWEST_BARS} to ${MOST_BARS} bars, this code has ${code.length}`
    : null;
}

/**
 * Focal length of the main lens of a phone as it films, in parts of the longer side of the picture (common
 * practice, no source).
 */
export const PHONE_FOCAL = 0.76;
