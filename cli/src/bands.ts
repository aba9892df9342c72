/** `sinew bands`: the turn of hips and ribs, read off worn bands in every frame of a film. */
import { spawn } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { codeProblem, PHONE_FOCAL, type BandName } from '@sinew/core/observe/band/band';
import type { BandTurn, BandTurns } from '@sinew/core/observe/band/bandTurns';
import { jointsOf, type Joints } from '@sinew/core/observe/band/frames';
import {
  BandReader,
  sigmaOf,
  STANCE_VARIES,
  type BandReading,
} from '@sinew/core/observe/band/readBands';
import { readCsv, type CsvFile } from '@sinew/core/format/csv';
import { FormatError } from '@sinew/core/format/formatError';
import { withoutMark } from '@sinew/core/format/series';
import { z } from 'zod';
import { picturesOf } from './y4m';

const DEGREE = Math.PI / 180;

const required = (name: string, from: number, to: number, unit: string) => {
  const error = `${name} must be between ${from} and ${to} ${unit}`;
  return z.coerce.number({ error }).min(from, error).max(to, error);
};
const code = (name: string) =>
  z.string({ error: `${name} is missing` }).superRefine((text, context) => {
    const problem = codeProblem(text);
    if (problem !== null) context.addIssue({ code: 'custom', message: `${name}: ${problem}` });
  });

const optionsSchema = z.object({
  points: z.string({ error: '--points is missing' }),
  out: z.string({ error: '--out is missing' }),
  code: code('--code').optional(),
  'ribs-code': code('--ribs-code').optional(),
  /** Strips of tape, whose bars nobody knows. */
  tape: z.boolean().default(false),
  hips: required('--hips', 40, 200, 'cm').optional(),
  ribs: required('--ribs', 40, 200, 'cm').optional(),
  stance: z.enum(['orthodox', 'southpaw'], { error: '--stance must be one of orthodox, southpaw' }),
  azimuth: required('--azimuth', -360, 360, 'degrees').optional(),
  seam: z.enum(['back', 'front'], { error: '--seam must be one of back, front' }).default('back'),
  focal: required('--focal', 50, 50_000, 'pixels').optional(),
});

export const bandOptionsSchema = optionsSchema.refine(
  ({ code, tape }) => tape || code !== undefined,
  { error: '--code is missing; strips of tape have none: say --tape' },
);

export type BandOptions = z.infer<typeof bandOptionsSchema>;

/**
 * @param film path of a Y4M film, or of any other that the machine's ffmpeg opens
 * @param points text of a CSV file with hips and shoulders in pixels
 * @returns a CSV file: time, band, yaw, sigma, why
 * @throws FormatError, RangeError with one line that says what is wrong
 */
export async function bandsOf(film: string, points: string, options: BandOptions): Promise<string> {
  if (options.hips === undefined && options.ribs === undefined) {
    throw new RangeError('say how far round a band goes, in cm: --hips, --ribs or both');
  }
  const series = readCsv(points);
  if (series.space !== '2d') throw new RangeError('--points must be in pixels, not in space');
  if (!series.places.leftHip || !series.places.rightHip)
    throw new RangeError('--points lacks the hips');
  let reader: BandReader | null = null;
  let frame = 0;
  for await (const { picture, facts } of picturesOf(piecesOf(film))) {
    reader ??= new BandReader({
      focal: options.focal ?? PHONE_FOCAL * Math.max(facts.width, facts.height),
      azimuth: options.azimuth === undefined ? null : options.azimuth * DEGREE,
      stance: options.stance,
      bands: wornBy(options),
    });
    const { row, time } = rowFor(series, frame, frame / facts.rate);
    reader.see(picture, time, row === null ? NOBODY : jointsIn(series, row));
    frame += 1;
    if (frame > MOST_PICTURES) {
      throw new RangeError(
        `too long: at most ${MOST_PICTURES.toLocaleString('en')} pictures; cut the strike out of it`,
      );
    }
  }
  if (!reader) throw new RangeError('the film has no picture');
  return written(reader.read());
}

/** Strips of every picture are kept until all are seen: ten seconds at 240 a second. */
const MOST_PICTURES = 2400;

const NOBODY: Joints = { hips: null, shoulders: null, forearms: [] };

function wornBy({ hips, ribs, seam, ...options }: BandOptions) {
  const worn = (girth: number | undefined, bars: string | undefined) => {
    const code = options.tape ? null : (bars ?? null);
    return girth === undefined ? undefined : { code, girth: girth / 100, seam };
  };
  return {
    hips: worn(hips, options.code),
    ribs: worn(ribs, options['ribs-code'] ?? options.code),
  };
}

/** A film and its points may count by frames; else they meet in time. */
function rowFor({ frameTimes }: CsvFile, frame: number, time: number) {
  const own = frameTimes[frame];
  const first = frameTimes[0]!;
  const spacing = (frameTimes[frameTimes.length - 1]! - first) / (frameTimes.length - 1);
  if (own === undefined) return { row: null, time };
  if (Math.abs(own - first - time) < spacing / 2) return { row: frame, time: own };
  const row = nearestFrame(frameTimes, first + time);
  return Math.abs(frameTimes[row]! - first - time) < spacing
    ? { row, time: first + time }
    : { row: frame, time: own };
}

const jointsIn = ({ places }: CsvFile, row: number): Joints =>
  jointsOf((name) => {
    const found = places[name]?.[row];
    return found ? { x: found[0]!, y: found[1]! } : null;
  });

/** A Y4M film as it lies there; any other through ffmpeg. */
async function* piecesOf(film: string): AsyncGenerator<Uint8Array> {
  if (/\.y4m$/i.test(film)) {
    yield* createReadStream(film, { highWaterMark: 1 << 20 });
    return;
  }
  const args = ['-v', 'error', '-i', film, '-an', '-fps_mode', 'passthrough'];
  const ffmpeg = spawn('ffmpeg', [...args, '-f', 'yuv4mpegpipe', '-strict', '-1', '-'], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  ffmpeg.stderr.on('data', (piece: Buffer) => (said += piece.toString()));
  const ended = new Promise<void>((resolve, reject) => {
    ffmpeg.on('error', () =>
      reject(
        new RangeError('this film is no Y4M, and there is no ffmpeg here to turn it into one'),
      ),
    );
    ffmpeg.on('close', (status) =>
      status === 0
        ? resolve()
        : reject(new RangeError(`ffmpeg cannot read the film: ${said.split('\n')[0]}`)),
    );
  });
  // Told by whoever waits for the end.
  ended.catch(() => undefined);
  yield* ffmpeg.stdout;
  await ended;
}

function written(read: Partial<Record<BandName, readonly BandReading[]>>): string {
  const lines = (Object.entries(read) as [BandName, readonly BandReading[]][])
    .flatMap(([band, all]) => all.map((one) => ({ band, one })))
    .sort((a, b) => a.one.time - b.one.time)
    .map(({ band, one }) =>
      'yaw' in one
        ? `${time(one.time)},${band},${one.yaw.toFixed(5)},${sigmaOf(one).toFixed(5)},`
        : `${time(one.time)},${band},,,${one.why}`,
    );
  return ['time,band,yaw,sigma,why', ...lines, ''].join('\n');
}

const time = (seconds: number) => String(Number(seconds.toFixed(6)));

/** Of a reading's doubt, what differs from frame to frame: the rest is the same for the whole film. */
const SHAKES = 0.2;
/** Bands never are as unsure as this by themselves, radians: then it is square to the target that is not known. */
const SQUARE_UNKNOWN = 0.2;

/**
 * What `sinew bands` has written, laid over the frames of a series.
 *
 * @throws FormatError naming the line
 */
export function readBandsFile(text: string, frameTimes: readonly number[]): BandTurns {
  const [head, ...lines] = withoutMark(text).split(/\r\n|\n|\r/);
  if (head?.trim() !== 'time,band,yaw,sigma,why') {
    throw new FormatError('the columns must be time, band, yaw, sigma, why', 1);
  }
  const turns: Record<BandName, { frame: number; yaw: number; sigma: number }[]> = {
    hips: [],
    ribs: [],
  };
  const first = frameTimes[0]!;
  let begins: number | null = null;
  lines.forEach((line, i) => {
    if (line.trim() === '') return;
    const [at, band, yaw, sigma] = line.split(',');
    const seconds = Number(at);
    if (at === '' || !Number.isFinite(seconds))
      throw new FormatError('the time is not a number', i + 2);
    if (band !== 'hips' && band !== 'ribs')
      throw new FormatError('the band must be hips or ribs', i + 2);
    begins ??= seconds;
    if (yaw === '' || yaw === undefined) return;
    const [angle, doubt] = [Number(yaw), Number(sigma)];
    if (!Number.isFinite(angle) || !(doubt > 0)) {
      throw new FormatError('yaw and sigma must be numbers, sigma above 0', i + 2);
    }
    const frame = nearestFrame(frameTimes, first + seconds - begins);
    const last = turns[band][turns[band].length - 1];
    if (!last || last.frame < frame) turns[band].push({ frame, yaw: angle, sigma: doubt });
  });
  const isSquareKnown = [...turns.hips, ...turns.ribs].some(({ sigma }) => sigma < SQUARE_UNKNOWN);
  const own = (sigma: number) =>
    isSquareKnown ? sigma : Math.sqrt(Math.max(1e-4, sigma ** 2 - STANCE_VARIES ** 2));
  const turn = (list: (typeof turns)[BandName]): BandTurn | null =>
    list.length === 0
      ? null
      : {
          frames: list.map(({ frame }) => frame),
          yaw: list.map(({ yaw }) => yaw),
          shake: list.map(({ sigma }) => SHAKES * own(sigma)),
          lasting: list.map(({ sigma }) => Math.sqrt(1 - SHAKES ** 2) * own(sigma)),
        };
  return { isSquareKnown, hips: turn(turns.hips), ribs: turn(turns.ribs) };
}
