/** `sinew analyze`: the core on a file, as the app runs it. */
import { z } from 'zod';
import { analyze, type Analysis } from '@sinew/core/analysis/analyze';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import { readClipFile } from '@sinew/core/analysis/clipFile';
import { wrapped } from '@sinew/core/foundation/geometry/angles';
import { viewAt } from '@sinew/core/foundation/technique/views';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { biasSigma } from '@sinew/core/observe/track/pointSigma';
import type { PictureTrack, Points } from '@sinew/core/observe/track/track';
import { statureOfTrack } from '@sinew/core/observe/track/stature';
import { assumed } from '@sinew/core/reconstruct/calibration/assumed';
import type { Calibration } from '@sinew/core/reconstruct/calibration/calibration';
import { markAt, type Marks } from '@sinew/core/measure/events/events';
import type { Body } from '@sinew/core/measure/measures/context';
import { USUAL_RULES, type Rules } from '@sinew/core/judge/fault/finding';
import { schoolFrom } from '@sinew/core/judge/school/schools';
import { NO_SCHOOL, resolve } from '@sinew/core/judge/school/resolve';
import { techniqueById, VIEWS } from '@sinew/core/foundation/technique/techniques';
import { strikingSide, type Strike } from '@sinew/core/foundation/technique/strike';
import { readBandsFile } from './bands';
import { printedOf } from './printed';
import { readTrack, type FileTrack } from './readFile';

const oneOf = (name: string, values: readonly string[]) =>
  `${name} must be one of ${values.join(', ')}`;
const quantity = (name: string, from: number, to: number, unit: string) => {
  const error = `${name} must be between ${from} and ${to} ${unit}`;
  return z.coerce.number({ error }).min(from, error).max(to, error).optional();
};

export const optionsSchema = z.object({
  technique: z.string({ error: '--technique is missing' }),
  stance: z.enum(['orthodox', 'southpaw'], {
    error: oneOf('--stance', ['orthodox', 'southpaw']),
  }),
  side: z.enum(['left', 'right'], { error: oneOf('--side', ['left', 'right']) }).optional(),
  contact: z.coerce.number({ error: '--contact must be a time in seconds' }).optional(),
  view: z.enum(VIEWS, { error: oneOf('--view', VIEWS) }).optional(),
  azimuth: z.coerce
    .number({ error: '--azimuth must be in degrees' })
    .min(-360, '--azimuth must be between -360 and 360 degrees')
    .max(360, '--azimuth must be between -360 and 360 degrees')
    .optional(),
  mass: quantity('--mass', 15, 300, 'kg'),
  height: quantity('--height', 0.8, 2.5, 'm'),
  bands: z.string().optional(),
  cutoff: quantity('--cutoff', 2, 100, 'Hz'),
  school: z
    .array(z.string().regex(/^\w+=[\w-]+$/, '--school wants KEY=CHOICE, as in hookFist=palm-down'))
    .default([]),
});

export type Options = z.infer<typeof optionsSchema>;

/** What is printed, and what is worth a word beside it. */
export interface Result {
  readonly printed: object;
  readonly analysis: Analysis;
  /** Names in the file that are no landmarks. */
  readonly ignored: readonly string[];
}

/**
 * @param name the file's name, whose ending tells the format
 * @param text the landmark file
 * @param bands what `sinew bands` has written of the same film
 * @throws FormatError, RangeError with one line that says what is wrong
 */
export function analyzeFile(
  name: string,
  text: string,
  options: Options,
  bands: string | null = null,
): Result {
  const technique = techniqueById(options.technique);
  const school = schoolFrom(
    Object.fromEntries(options.school.map((one) => one.split('=') as [string, string])),
  );
  const file = readTrack(name, text);
  const side = options.side ?? strikingSide(technique, options.stance);
  const rules = { ...USUAL_RULES, school: resolve({ ...NO_SCHOOL, strike: school }) };
  const body = { mass: options.mass ?? null, height: options.height ?? null };
  const strike = { technique, side, stance: options.stance };
  const analysis = run(file, strike, { options, rules, body, bands });
  return { printed: printedOf(analysis, rules), analysis, ignored: file.ignored };
}

interface By {
  readonly options: Options;
  readonly rules: Rules;
  readonly body: Body;
  readonly bands: string | null;
}

function run(file: FileTrack, strike: Strike, { options, rules, body, bands }: By): Analysis {
  const { frameTimes } = file.track;
  const given = {
    strike,
    rules,
    body,
    marks: marksFrom(options.contact, frameTimes),
    ...(options.cutoff !== undefined && { cutoff: options.cutoff }),
  };
  if (!('calibration' in file)) return analyze({ ...given, track: file.track });
  const calibration = calibrationOf(file, strike, options);
  return analyze({
    ...given,
    track: bands === null ? file.track : asTracked(file.track),
    calibration,
    ...(bands !== null && { bands: readBandsFile(bands, frameTimes) }),
  });
}

/** Points in a film whose bands were read are a body tracker's: they lean, and a pelvis comes late in them. */
function asTracked(track: PictureTrack): PictureTrack {
  const stature = statureOfTrack(track);
  const points = Object.entries(track.points) as [Landmark, Points][];
  return {
    ...track,
    points: Object.fromEntries(
      points.map(([landmark, own]) => [
        landmark,
        { ...own, isTracked: true, bias: own.frames.map(() => stature * biasSigma(landmark, 1)) },
      ]),
    ),
  };
}

/** Where nothing else is said, the strike goes level to the target, and the student's height is the scale. */
function calibrationOf(
  file: Extract<FileTrack, { calibration: object }>,
  strike: Strike,
  { view, azimuth, height }: Options,
): Calibration {
  const radians = azimuth === undefined ? undefined : wrapped((azimuth * Math.PI) / 180);
  const seen = view ?? (radians === undefined ? undefined : viewAt(radians));
  if (!seen) throw new RangeError('a 2D track needs --view or --azimuth');
  if (radians !== undefined && seen !== 'above' && seen !== viewAt(radians)) {
    throw new RangeError(
      `--azimuth ${azimuth} is a view from ${viewAt(radians)}, not from ${seen}`,
    );
  }
  return assumed(
    {
      view: seen,
      ...(radians !== undefined && seen !== 'above' && { azimuth: radians }),
      ...file.calibration,
    },
    { track: file.track, stature: statureOfTrack(file.track) },
    strike,
    height ?? null,
  );
}

function marksFrom(contact: number | undefined, frameTimes: readonly number[]): Marks {
  if (contact === undefined) return {};
  const last = frameTimes[frameTimes.length - 1]!;
  if (!(contact >= 0 && contact <= last)) {
    throw new RangeError(
      `--contact must lie between 0 and ${last} s, counted from the file’s first frame`,
    );
  }
  // Told to the millisecond it may lie between frames: what was seen after it is not before it.
  return { contact: markAt(frameTimes, contact, 0, 'eye') };
}

/**
 * Every strike of a clip, as the bench shows it.
 *
 * @param text a clip file
 * @param strikeId only this one; all when not given
 * @throws FormatError, RangeError with one line that says what is wrong
 */
export function analyzeClipFile(text: string, strikeId?: string): object {
  const { clip, library } = readClipFile(text);
  const strikes = clip.document.strikes.filter(
    ({ id }) => strikeId === undefined || id === strikeId,
  );
  if (strikes.length === 0) {
    const known = clip.document.strikes.map(({ id }) => id).join(', ') || 'none';
    throw new RangeError(
      strikeId === undefined
        ? 'no strike is marked in this clip'
        : `the clip has no strike ${strikeId}; its strikes: ${known}`,
    );
  }
  return {
    strikes: strikes.map((strike) => {
      const analysis = analyzeClip(clip, strike, library);
      const { id, technique, side } = strike;
      return { strike: id, technique, side, ...printedOf(analysis, analysis.rules) };
    }),
  };
}
