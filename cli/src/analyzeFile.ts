/** `sinew analyze`: the core on a file, as the app runs it. */
import { z } from 'zod';
import { analyze, type Analysis } from '@sinew/core/analyze';
import { markOnFrame } from '@sinew/core/events/events';
import { PHASES } from '@sinew/core/events/phases';
import { readTrackJson, type TrackFile } from '@sinew/core/format/trackJson';
import { nearestFrame } from '@sinew/core/track/time';
import { techniqueById, VIEWS } from '@sinew/core/technique/catalogue';
import { strikingSide, type Strike } from '@sinew/core/technique/strike';

const oneOf = (name: string, values: readonly string[]) =>
  `${name} must be one of ${values.join(', ')}`;

export const optionsSchema = z.object({
  technique: z.string({ error: '--technique is missing' }),
  stance: z.enum(['orthodox', 'southpaw'], {
    error: oneOf('--stance', ['orthodox', 'southpaw']),
  }),
  side: z.enum(['left', 'right'], { error: oneOf('--side', ['left', 'right']) }).optional(),
  contact: z.coerce.number({ error: '--contact must be a time in seconds' }).optional(),
  view: z.enum(VIEWS, { error: oneOf('--view', VIEWS) }).optional(),
});

export type Options = z.infer<typeof optionsSchema>;

/**
 * @param text the landmark file
 * @returns the object that is printed
 * @throws FormatError, RangeError with one line that says what is wrong
 */
export function analyzeFile(text: string, options: Options): object {
  const technique = techniqueById(options.technique);
  const file = readTrackJson(text);
  const side = options.side ?? strikingSide(technique, options.stance);
  const analysis = run(file, { technique, side }, options);
  return {
    events: Object.fromEntries(
      Object.entries(analysis.events).map(([name, { time, sigma }]) => [name, { time, sigma }]),
    ),
    phases: phasesOf(analysis),
    readings: analysis.readings,
    links: Object.fromEntries(
      Object.entries(analysis.links).map(([link, { share, verdict }]) => [
        link,
        { share: share.value, verdict },
      ]),
    ),
    findings: analysis.findings
      .filter((finding) => finding.status !== 'clear')
      .map(({ fault, status, evidence, injury }) => ({ fault, status, evidence, injury })),
  };
}

function run(file: TrackFile, strike: Strike, options: Options): Analysis {
  const { frameTimes } = file;
  const last = frameTimes[frameTimes.length - 1]!;
  if (
    options.contact !== undefined &&
    !(options.contact >= frameTimes[0]! && options.contact <= last)
  ) {
    throw new RangeError(`--contact must lie between ${frameTimes[0]} and ${last} s`);
  }
  const marks =
    options.contact === undefined
      ? {}
      : { contact: markOnFrame(frameTimes, nearestFrame(frameTimes, options.contact)) };
  if (file.space === '3d') return analyze({ strike, marks, track: file });
  if (!options.view) throw new RangeError('a 2D track needs --view');
  const calibration = { view: options.view, scale: file.scale, target: file.target };
  return analyze({ strike, marks, track: file, calibration });
}

function phasesOf({ events }: Analysis): Record<string, { start: number; end: number }> {
  return Object.fromEntries(
    PHASES.flatMap(({ id, from, to }) => {
      const [start, end] = [events[from], events[to]];
      return start && end && end.time >= start.time
        ? [[id, { start: start.time, end: end.time }]]
        : [];
    }),
  );
}
