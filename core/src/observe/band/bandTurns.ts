/** What worn bands have told of a film, as it is kept with the film. */
import { rollup } from 'd3-array';
import { z } from 'zod';
import { BAND_KINDS, BANDS, SEAMS, wornSchema, type WornBands } from './band';
import type { BandReading, Read } from './readBands';

const finite = z.number().finite();
const sigma = finite.positive().max(10);

/** One band through a film; a list has one value for each of the frames. */
const bandTurnSchema = z
  .object({
    /** Ascending. */
    frames: z.array(z.number().int().nonnegative()).min(1).max(100_000),
    /** Radians; 0 = square to the target, positive = the rear side has come forward. */
    yaw: z.array(finite),
    /** Standard deviations, radians: from frame to frame, and for the whole film. */
    shake: z.array(sigma),
    lasting: z.array(sigma),
  })
  .refine(({ frames }) => frames.every((frame, i) => i === 0 || frame > frames[i - 1]!), {
    message: 'frames must ascend',
  })
  .refine(
    ({ frames, yaw, shake, lasting }) =>
      [yaw, shake, lasting].every((list) => list.length === frames.length),
    { message: 'every frame needs its turn' },
  );

export type BandTurn = Readonly<z.infer<typeof bandTurnSchema>>;

const oneSchema = z.object({
  /** Around the body, as it was read by: metres. */
  girth: wornSchema.shape.girth,
  turn: bandTurnSchema.nullable(),
  /** In how many frames it says nothing, and why. */
  silent: z.array(
    z.object({ why: z.string().min(1).max(200), frames: z.number().int().positive() }),
  ),
});

export const bandTurnsSchema = z.object({
  seam: z.enum(SEAMS),
  /** Printed where it is missing. */
  kind: z.enum(BAND_KINDS).optional(),
  /** Whether the turn from square to the target is known, or taken from a guard as guards usually are. */
  isSquareKnown: z.boolean(),
  bands: z.partialRecord(z.enum(BANDS), oneSchema),
});

export type KeptBand = z.infer<typeof oneSchema>;
export type KeptBands = z.infer<typeof bandTurnsSchema>;

/** What the turn of hips and ribs is measured from. */
export interface BandTurns {
  readonly isSquareKnown: boolean;
  readonly hips: BandTurn | null;
  readonly ribs: BandTurn | null;
}

export const turnsOf = ({ isSquareKnown, bands }: KeptBands): BandTurns => ({
  isSquareKnown,
  hips: bands.hips?.turn ?? null,
  ribs: bands.ribs?.turn ?? null,
});

/** The frames of a film that a band was read in, of those that were looked at. */
export function turnOf(
  readings: readonly BandReading[],
  frames: readonly number[],
): BandTurn | null {
  const known = readings.flatMap((one, i) => ('yaw' in one ? [{ ...one, frame: frames[i]! }] : []));
  if (known.length === 0) return null;
  const sigmas = (key: 'shake' | 'lasting') =>
    known.map((one) => Math.max(LEAST, toFifth(one[key])));
  return {
    frames: known.map(({ frame }) => frame),
    yaw: known.map(({ yaw }) => toFifth(yaw)),
    shake: sigmas('shake'),
    lasting: sigmas('lasting'),
  };
}

/** The least of a deviation that is one, radians. */
const LEAST = 1e-5;
const toFifth = (radians: number) => Math.round(radians * 1e5) / 1e5;

/** A stretch of a film that was read by itself. */
export interface ReadStretch {
  readonly frames: readonly number[];
  readonly read: Read;
}

/** All stretches of a film together; frames ascending. */
export function keptBands(
  stretches: readonly ReadStretch[],
  worn: WornBands,
  isSquareKnown: boolean,
): KeptBands {
  const frames = stretches.flatMap((one) => one.frames);
  const named = BANDS.flatMap((name) => {
    const own = worn[name];
    if (!own) return [];
    const readings = stretches.flatMap(
      ({ read, frames: all }) => read[name] ?? all.map(() => ({ time: 0, why: NOT_LOOKED_FOR })),
    );
    const silent = rollup(
      readings.flatMap((one) => ('why' in one ? [one.why] : [])),
      (all) => all.length,
      (why) => why,
    );
    return [
      [
        name,
        {
          girth: own.girth,
          turn: turnOf(readings, frames),
          silent: [...silent]
            .sort((a, b) => b[1] - a[1])
            .map(([why, count]) => ({ why, frames: count })),
        },
      ] as const,
    ];
  });
  const [first] = Object.values(worn);
  const seam = first?.seam ?? 'front';
  const kind = first?.code === null ? 'tape' : 'printed';
  return { seam, kind, isSquareKnown, bands: Object.fromEntries(named) };
}

const NOT_LOOKED_FOR = 'the body was not found here';
