import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';
import { beforeAll, describe, expect, it } from 'vitest';
import { PRINTED } from '@sinew/core/observe/band/band';
import { clean } from '@sinew/fighters/fighter/recipe';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { bandedFilm, USUALLY_BANDED } from '@sinew/fighters/film/banded';
import { picturesOf } from '../src/y4m';

const bin = fileURLToPath(new URL('../bin/sinew.mjs', import.meta.url));
const sinew = (...args: string[]) =>
  spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8' });
const folder = scratchFolder('bands');
const at = (name: string) => join(folder, name);

const recipe = clean('cross');
const [FROM, TO] = [recipe.contact - 0.4, recipe.contact + 0.06];
const worn = { flatness: 0.75, boxiness: 2.1 };
const film = bandedFilm({
  ...USUALLY_BANDED,
  recipe,
  hips: { ...worn, code: PRINTED.hips, girth: 0.96 },
  ribs: { ...worn, code: PRINTED.ribs, girth: 0.9 },
});
const frames = film.times.flatMap((time, i) => (time > FROM && time < TO ? [i] : []));
const begins = film.times[frames[0]!]!;

/** As a camera's film and a tracker's points would come to us. */
beforeAll(() => {
  const { width, height } = USUALLY_BANDED.size;
  const pictures = frames.flatMap((frame) => [
    Buffer.from('FRAME\n'),
    film.picture(frame),
    Buffer.alloc((width * height) / 2, 128),
  ]);
  const head = Buffer.from(`YUV4MPEG2 W${width} H${height} F120:1 Ip A1:1 C420jpeg\n`);
  writeFileSync(at('film.y4m'), Buffer.concat([head, ...pictures]));
  const names = Object.keys(film.points) as (keyof typeof film.points)[];
  const lines = frames.map((frame) => [
    film.times[frame]! - begins,
    ...names.flatMap((name) => film.points[name]![frame]!),
  ]);
  const heads = ['time', ...names.flatMap((name) => [`${name}_x`, `${name}_y`])];
  writeFileSync(at('points.csv'), [heads, ...lines].map((line) => line.join(',')).join('\n'));
}, 60_000);

const read = (...more: string[]) =>
  sinew(
    ...['bands', at('film.y4m'), '--points', at('points.csv'), '--out', at('turn.csv')],
    ...['--code', PRINTED.hips, '--ribs-code', PRINTED.ribs, ...more],
  );
const USUAL = [
  '--hips',
  '96',
  '--ribs',
  '90',
  '--azimuth',
  '180',
  '--seam',
  'front',
  '--focal',
  '720',
];

describe('sinew bands', () => {
  it('reads bands frame by frame, and the judge takes its starts from them', () => {
    expect(read(...USUAL)).toMatchObject({ status: 0, stderr: '' });
    const [head, ...lines] = readFileSync(at('turn.csv'), 'utf8').trim().split('\n');
    expect(head).toBe('time,band,yaw,sigma,why');
    expect(lines).toHaveLength(2 * frames.length);
    const rows = lines.map((line) => line.split(','));
    const known = rows.filter(([, band, yaw]) => band === 'hips' && yaw !== '');
    expect(known.length).toBeGreaterThan(0.9 * frames.length);
    for (const [time, , yaw, sigma] of known) {
      const truth = film.yaw.hips[frames[Math.round(Number(time) * 120)]!]!;
      expect(Math.abs(Number(yaw) - truth)).toBeLessThan(3 * Number(sigma));
    }

    const { status, stdout } = sinew(
      ...['analyze', at('points.csv'), '--technique', 'cross', '--view', 'behind', '--json'],
      ...['--contact', String(recipe.contact - begins), '--bands', at('turn.csv')],
    );
    expect(status).toBe(0);
    const { readings } = JSON.parse(stdout) as {
      readings: Record<string, { value: number; sigma: number; source: string }>;
    };
    const lead = readings['lead.hipsTrunk']!;
    const { times } = truthOfStrike(recipe);
    expect(lead.source).toBe('measured-band');
    expect(Math.abs(lead.value - (times.trunk! - times.hips!))).toBeLessThan(1.96 * lead.sigma);
    expect(readings['separation.max']).toMatchObject({ source: 'measured-band' });
  }, 120_000);

  it('reads strips whose order nobody says, from where they begin', () => {
    const told = ['--points', at('points.csv'), '--out', at('tape.csv'), '--tape'];
    const around = ['--hips', '96', '--focal', '720'];
    expect(sinew('bands', at('film.y4m'), ...told, ...around)).toMatchObject({
      status: 0,
      stderr: '',
    });
    const rows = readFileSync(at('tape.csv'), 'utf8').trim().split('\n').slice(1);
    const known = rows.map((row) => row.split(',')).filter(([, , yaw]) => yaw !== '');
    expect(known.length).toBeGreaterThan(0.9 * frames.length);
    for (const [time, , yaw, sigma] of known) {
      const truth = film.yaw.hips[frames[Math.round(Number(time) * 120)]!]!;
      expect(Math.abs(Number(yaw) - truth)).toBeLessThan(3 * Number(sigma));
    }
  }, 60_000);

  it('says in one line what it lacks', () => {
    const lacks = (said: RegExp, ...more: string[]) => {
      const { status, stderr } = read(...more);
      expect(stderr).toMatch(said);
      expect(stderr.trim().split('\n')).toHaveLength(1);
      expect(status).toBe(2);
    };
    lacks(/--hips, --ribs or both/);
    const bare = ['bands', at('film.y4m'), '--points', at('points.csv'), '--out', at('turn.csv')];
    expect(sinew(...bare, '--hips', '96').stderr).toMatch(/--code is missing.*say --tape/);
    lacks(/--hips must be between 40 and 200 cm/, '--hips', '0.96');
    lacks(/--seam must be one of back, front/, '--hips', '96', '--seam', 'left');
    const wrong = sinew('bands', at('points.csv'), '--points', at('points.csv'));
    expect(wrong).toMatchObject({ status: 2, stderr: expect.stringMatching(/--out is missing/) });
  }, 60_000);
});

describe('Y4M', () => {
  const of = async (...pieces: (string | Uint8Array)[]) => {
    const found = [];
    async function* source() {
      for (const piece of pieces) yield Buffer.from(piece as string);
    }
    for await (const { picture } of picturesOf(source())) found.push([...picture.data]);
    return found;
  };

  it('is read whatever pieces it comes in, in 8 bits and in 10', async () => {
    const head = 'YUV4MPEG2 W2 H2 F30:1 ';
    const colour = new Uint8Array(2);
    expect(
      await of(head, 'C420\nFRA', 'ME\n', Uint8Array.of(1, 2, 3), Uint8Array.of(4), colour),
    ).toEqual([[1, 2, 3, 4]]);
    const deep = Uint8Array.of(0, 1, 0, 2, 0, 3, 252, 3);
    expect(await of(`${head}C420p10\nFRAME\n`, deep, new Uint8Array(4))).toEqual([
      [64, 128, 192, 255],
    ]);
    expect(await of(`${head}Cmono\nFRAME Ip\n`, Uint8Array.of(9, 8, 7, 6))).toEqual([[9, 8, 7, 6]]);
  });

  it('says what is wrong with a file that is none, or is cut off', async () => {
    await expect(of('RIFF....\n')).rejects.toThrow(/no Y4M film/);
    await expect(of('YUV4MPEG2 W0 H2 F30:1\n')).rejects.toThrow(/1 to 8192 pixels/);
    await expect(of('YUV4MPEG2 W2 H2\n')).rejects.toThrow(/how many frames a second/);
    await expect(of('YUV4MPEG2 W2 H2 F30:1\nFRAME\n', Uint8Array.of(1, 2))).rejects.toThrow(
      /ends in the middle of picture 1/,
    );
    await expect(of(new Uint8Array(5000))).rejects.toThrow(/no Y4M film/);
  });
});
