import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { ZodError } from 'zod';
import { firstWrong } from '@sinew/core/foundation/problem/problem';
import { writeEvents, writePhases } from '@sinew/core/format/vtt';
import { isClipFile } from '@sinew/core/analysis/clipFile';
import { glossaryPage } from '@sinew/core/analysis/glossary';
import { analyzeClipFile, analyzeFile, optionsSchema, type Options } from './analyzeFile';
import { bandOptionsSchema, bandsOf } from './bands';
import { LANDMARK_FILE } from './readFile';
import { version } from '../package.json';

const USAGE =
  'usage: sinew analyze FILE|FOLDER --technique NAME --stance orthodox|southpaw ' +
  '[--side left|right] [--contact SECONDS] [--view side|front|behind|above] [--azimuth DEG] [--mass KG] ' +
  '[--height M] [--cutoff HZ] [--school KEY=CHOICE …] [--bands FILE.csv] [--vtt PREFIX] [--json]\n' +
  '       sinew analyze CLIP.json [--strike ID] [--json]   a clip saved from the bench says the rest\n' +
  '       sinew bands FILM.y4m --points POINTS.csv --code BITS --hips CM --ribs CM --out FILE.csv ' +
  '[--ribs-code BITS | --tape] [--stance orthodox|southpaw] [--azimuth DEG] [--seam back|front] [--focal PX]\n' +
  '       sinew words   what Sinew’s words mean';

/** `--azimuth -90` is a place, and no option that was forgotten. */
function withSigns(args: readonly string[]): string[] {
  return args.reduce<string[]>((all, word) => {
    const last = all[all.length - 1];
    const isNegative = last?.startsWith('--') && !last.includes('=') && /^-[\d.]/.test(word);
    return isNegative ? [...all.slice(0, -1), `${last}=${word}`] : [...all, word];
  }, []);
}

async function main(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args: withSigns(args),
    allowPositionals: true,
    options: {
      technique: { type: 'string' },
      stance: { type: 'string', default: 'orthodox' },
      side: { type: 'string' },
      contact: { type: 'string' },
      view: { type: 'string' },
      mass: { type: 'string' },
      height: { type: 'string' },
      cutoff: { type: 'string' },
      school: { type: 'string', multiple: true },
      strike: { type: 'string' },
      vtt: { type: 'string' },
      bands: { type: 'string' },
      points: { type: 'string' },
      code: { type: 'string' },
      'ribs-code': { type: 'string' },
      tape: { type: 'boolean' },
      hips: { type: 'string' },
      ribs: { type: 'string' },
      azimuth: { type: 'string' },
      seam: { type: 'string' },
      focal: { type: 'string' },
      out: { type: 'string' },
      json: { type: 'boolean' },
      help: { type: 'boolean', short: 'h' },
      version: { type: 'boolean' },
    },
  });
  // `--school a=b c=d` reads as one option and a stray word: words with a sign of equality are schools.
  const words = positionals.filter((word) => !/^\w+=[\w-]+$/.test(word));
  const school = [...(values.school ?? []), ...positionals.filter((word) => !words.includes(word))];
  if (values.help) {
    console.log(USAGE);
    return;
  }
  if (values.version) {
    console.log(version);
    return;
  }
  const [command, path, ...more] = words;
  if (command === 'words' && path === undefined) {
    process.stdout.write(glossaryPage());
    return;
  }
  if (command === 'bands' && path !== undefined && more.length === 0) {
    const options = bandOptionsSchema.parse(values);
    writeFileSync(options.out, await bandsOf(path, readFileSync(options.points, 'utf8'), options));
    return;
  }
  if (command !== 'analyze' || path === undefined || more.length > 0) throw new Error(USAGE);
  const isFolder = statSync(path).isDirectory();
  const clip = isFolder ? null : clipIn(path);
  if (clip !== null) {
    refuseOptions({ ...values, school: school[0] });
    print(analyzeClipFile(clip, values.strike), values.json);
    return;
  }
  const options = optionsSchema.parse({ ...values, school });
  if (isFolder) {
    analyzeFolder(path, options);
    return;
  }
  const { printed, analysis } = analyzed(path, options);
  print(printed, values.json);
  if (values.vtt !== undefined) {
    writeFileSync(`${values.vtt}.phases.vtt`, writePhases(analysis.events));
    writeFileSync(`${values.vtt}.events.vtt`, writeEvents(analysis.events));
  }
}

function print(result: object, isOneLine: boolean | undefined): void {
  console.log(JSON.stringify(result, null, isOneLine ? undefined : 2));
}

function clipIn(path: string): string | null {
  if (!/\.json$/i.test(path)) return null;
  const text = readFileSync(path, 'utf8');
  return isClipFile(text) ? text : null;
}

const SAID_BY_CLIP = [
  'technique',
  'side',
  'contact',
  'view',
  'azimuth',
  'bands',
  'mass',
  'height',
  'school',
] as const;

/** A clip says itself what it shows; an option that would contradict it is a mistake. */
function refuseOptions(values: Partial<Record<(typeof SAID_BY_CLIP)[number], string>>): void {
  const said = SAID_BY_CLIP.find((name) => values[name] !== undefined);
  if (said) throw new Error(`--${said} is said by the clip itself; leave it out`);
}

function analyzed(path: string, options: Options) {
  const bands = options.bands === undefined ? null : readFileSync(options.bands, 'utf8');
  const result = analyzeFile(basename(path), readFileSync(path, 'utf8'), options, bands);
  if (result.ignored.length > 0) {
    console.error(
      `sinew: ${basename(path)}: not landmarks, left out: ${result.ignored.join(', ')}`,
    );
  }
  return result;
}

/** Every landmark file of a folder: one line of JSON each, and how far it has come on the way. */
function analyzeFolder(folder: string, options: Options): void {
  const names = readdirSync(folder)
    .filter((name) => LANDMARK_FILE.test(name))
    .sort();
  if (names.length === 0) throw new Error(`no TRC, CSV or JSON file in ${folder}`);
  let failed = 0;
  names.forEach((name, i) => {
    console.error(`${i + 1} of ${names.length}: ${name}`);
    try {
      console.log(JSON.stringify({ file: name, ...analyzed(join(folder, name), options).printed }));
    } catch (error) {
      failed += 1;
      console.log(JSON.stringify({ file: name, error: said(error) }));
    }
  });
  if (failed > 0) throw new Error(`${failed} of ${names.length} files could not be read`);
}

function said(error: unknown): string {
  const message = error instanceof ZodError ? firstWrong(error) : (error as Error).message;
  return message.split('\n')[0]!;
}

try {
  await main(process.argv.slice(2));
} catch (error) {
  console.error(`sinew: ${said(error)}`);
  process.exitCode = 2;
}
