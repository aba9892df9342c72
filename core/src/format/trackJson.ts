/** Sinew's own JSON for a landmark series: one object, every number in SI units or pixels. */
import { z } from 'zod';
import { firstWrong } from '../foundation/problem/problem';
import { LANDMARKS } from '../foundation/body/landmarks';
import { FormatError } from './formatError';
import { withoutMark } from './series';
import type { PictureTrack, SpaceTrack } from '../observe/track/track';

const numbers = z.array(z.number());
const pixel = z.object({ x: z.number(), y: z.number() });

const pointsSchema = z
  .object({
    frames: z.array(z.number().int().nonnegative()),
    x: numbers,
    y: numbers,
    z: numbers.optional(),
    sigma: z.array(z.number().positive('must be above 0')),
  })
  .refine(
    ({ frames, x, y, z: depth, sigma }) =>
      [x, y, sigma, depth ?? frames].every((list) => list.length === frames.length),
    'frames, x, y, z and sigma must have the same length',
  )
  .refine(({ frames }) => ascending(frames), 'frames must ascend');

function ascending(list: readonly number[]): boolean {
  return list.every((value, i) => i === 0 || value > list[i - 1]!);
}

const common = {
  sinew: z.literal('track'),
  version: z.literal(1),
  frameTimes: numbers.min(2).refine(ascending, 'must ascend'),
  points: z.partialRecord(z.enum(LANDMARKS), pointsSchema),
};

const trackSchema = z
  .discriminatedUnion('space', [
    z.object({
      ...common,
      space: z.literal('3d'),
      source: z.enum(['measured-3d', 'estimated-3d']),
    }),
    z.object({
      ...common,
      space: z.literal('2d'),
      source: z.literal('measured-2d'),
      placingSigma: z.number().positive(),
      scale: z.object({ from: pixel, to: pixel, metres: z.number().positive() }).nullable(),
      target: z.object({ from: pixel, to: pixel }).nullable(),
    }),
  ])
  .superRefine(({ space, points, frameTimes }, context) => {
    for (const [landmark, { frames, z: depth }] of Object.entries(points)) {
      const path = ['points', landmark];
      if ((frames[frames.length - 1] ?? 0) >= frameTimes.length) {
        context.addIssue({ code: 'custom', path, message: 'has a frame that frameTimes does not' });
      }
      if ((space === '3d') !== (depth !== undefined)) {
        context.addIssue({
          code: 'custom',
          path,
          message: space === '3d' ? 'needs z in 3D' : 'has z in 2D',
        });
      }
    }
  });

export type TrackFile = z.infer<typeof trackSchema>;

/**
 * @param text the whole file
 * @throws FormatError
 */
export function readTrackJson(text: string): TrackFile {
  let parsed: unknown;
  try {
    parsed = JSON.parse(withoutMark(text));
  } catch {
    throw new FormatError('not JSON');
  }
  const result = trackSchema.safeParse(parsed);
  if (result.success) return result.data;
  throw new FormatError(`not a Sinew track: ${firstWrong(result.error)}`);
}

export function writeTrackJson(
  track:
    SpaceTrack | (PictureTrack & Pick<Extract<TrackFile, { space: '2d' }>, 'scale' | 'target'>),
): string {
  return JSON.stringify({ sinew: 'track', version: 1, ...track });
}
