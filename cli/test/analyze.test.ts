import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';
import { describe, expect, it } from 'vitest';
import { writeCsv } from '../../core/src/format/csv';
import { writeTrackJson, readTrackJson } from '../../core/src/format/trackJson';
import { writeTrc } from '../../core/src/format/trc';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { clean, FAULT_CHANGES } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';

const bin = fileURLToPath(new URL('../bin/sinew.mjs', import.meta.url));
const sinew = (...args: string[]) =>
  spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8' });

const folder = scratchFolder('cli');
const recipe = clean('cross', FAULT_CHANGES['arm-first']);
const track = knownTrack(recipe, { rate: 240, noise: 0, seed: 1 });
const good = join(folder, 'good.json');
writeFileSync(good, writeTrackJson(track));

describe('sinew analyze', () => {
  it('prints events, readings and findings of a known strike', () => {
    const { status, stdout } = sinew(
      'analyze',
      good,
      '--technique',
      'cross',
      '--contact',
      '0.7',
      '--json',
    );
    expect(status).toBe(0);
    const result = JSON.parse(stdout) as {
      events: Record<string, { time: number }>;
      readings: Record<string, { value?: number; absent?: string }>;
      findings: { fault: string; status: string }[];
    };
    const truth = knownTimes(recipe);
    expect(Math.abs(result.events.arm!.time - truth.arm)).toBeLessThan(0.005);
    expect(result.readings['lead.hipsArm']!.value).toBeLessThan(0);
    expect(result.readings.momentum!.absent).toMatch(/body mass/);
    expect(result.findings.filter((one) => one.status === 'found')).toMatchObject([
      { fault: 'arm-first' },
    ]);
  });

  it('takes contact as it is told, between frames too', () => {
    const late = clean('cross', { contact: 0.7 + 0.6 / 60, finish: 0.003 });
    const seen = join(folder, 'between.json');
    writeFileSync(seen, writeTrackJson(knownTrack(late, { rate: 60, noise: 0, seed: 1 })));
    const told = ['analyze', seen, '--technique', 'cross', '--contact', String(late.contact)];
    const { events, readings } = JSON.parse(sinew(...told, '--json').stdout) as {
      events: { contact: { time: number } };
      readings: Record<string, { value: number }>;
    };
    expect(events.contact.time).toBeCloseTo(late.contact, 9);
    // On the frame behind it the fist has been stopped: another generator's straights came out a fifth too slow.
    const truth = truthOfStrike(late).values['speed.contact'];
    expect(Math.abs(readings['speed.contact']!.value / truth - 1)).toBeLessThan(0.05);
  });

  it('takes the place of the camera, and the height as the scale', () => {
    const names = Object.keys(track.points) as (keyof typeof track.points)[];
    const rows = track.frameTimes.map((time, i) => [
      time,
      // From the left side of an orthodox student, 200 pixels a metre: the target is to the left.
      ...names.flatMap((name) => [
        900 - 200 * track.points[name]!.x[i]!,
        500 - 200 * track.points[name]!.y[i]!,
      ]),
    ]);
    const heads = ['time', ...names.flatMap((name) => [`${name}_x`, `${name}_y`])];
    const seen = join(folder, 'seen.csv');
    writeFileSync(seen, [heads, ...rows].map((row) => row.join(',')).join('\n'));
    const { status, stdout, stderr } = sinew(
      ...['analyze', seen, '--technique', 'cross', '--contact', '0.7'],
      ...['--azimuth', '-90', '--height', String(recipe.height), '--json'],
    );
    expect(stderr).toBe('');
    expect(status).toBe(0);
    const { events, readings } = JSON.parse(stdout) as {
      events: Record<string, { time: number }>;
      readings: Record<string, { value: number; sigma: number; absent?: string }>;
    };
    expect(Math.abs(events.drive!.time - knownTimes(recipe).hips)).toBeLessThan(0.03);
    expect(readings['evidence.turn']).toEqual({ value: 'drive' });
    const half = readings['turn.half.trunk']!;
    expect(half.value).toBeGreaterThan(events.drive!.time);
    expect(half.value).toBeLessThan(0.7);
    const truth = truthOfStrike(recipe).values['speed.peak'];
    const speed = readings['speed.peak']!;
    expect(Math.abs(speed.value - truth)).toBeLessThan(1.96 * speed.sigma);
    const wrong = sinew(
      'analyze',
      seen,
      '--technique',
      'cross',
      '--azimuth',
      '-90',
      '--view',
      'front',
    );
    expect(wrong.stderr).toMatch(/--azimuth -90 is a view from side, not from front/);
  });

  it('says how it is used, and which version it is', () => {
    for (const word of ['--help', '-h']) {
      const { status, stdout } = sinew(word);
      expect(status).toBe(0);
      expect(stdout).toMatch(/^usage: sinew analyze/);
    }
    expect(sinew('--version')).toMatchObject({
      status: 0,
      stdout: expect.stringMatching(/^\d+\.\d+\.\d+\n$/),
    });
  });

  it.each([
    [['analyze', good], /--technique is missing/],
    [
      ['analyze', good, '--technique', 'cross', '--height', '1.1'],
      /lengths are 1\.6 times those of somebody 1\.1 m tall/,
    ],
    [['analyze', good, '--technique', 'headbutt'], /no technique "headbutt"/],
    [
      ['analyze', good, '--technique', 'cross', '--contact', '9'],
      /--contact must lie between 0 and/,
    ],
    [['analyze', good, '--technique', 'cross', '--contact', 'soon'], /time in seconds/],
    [['analyze', good, '--technique', 'cross', '--stance', 'square'], /--stance must be one of/],
    [['analyze', join(folder, 'none.json'), '--technique', 'cross'], /no such file/],
    [['analyze', good, '--wrong'], /Unknown option/],
    [['look', good], /usage/],
  ])('answers %j with one clear line and exit code 2', (args, message) => {
    const { status, stdout, stderr } = sinew(...args);
    expect(status).toBe(2);
    expect(stdout).toBe('');
    expect(stderr).toMatch(message);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});

describe('the track file', () => {
  it('comes back as it was written', () => {
    expect(readTrackJson(writeTrackJson(track))).toMatchObject({ ...track });
  });

  const broken = (change: (file: Record<string, unknown>) => void) => {
    const file = JSON.parse(writeTrackJson(track)) as Record<string, unknown>;
    change(file);
    return JSON.stringify(file);
  };

  it.each([
    ['{', /not JSON/],
    ['[]', /not a Sinew track/],
    [broken((f) => (f.version = 2)), /version/],
    [broken((f) => (f.frameTimes = [0, 1, 1])), /“frameTimes” must ascend\./],
    [
      broken((f) => (f.frameTimes = [0, 1])),
      /“points\.nose” has a frame that frameTimes does not\./,
    ],
    [
      broken((f) => (f.points = { nose: { frames: [0], x: [1], y: [1], sigma: [1] } })),
      /needs z in 3D/,
    ],
    [
      broken((f) => (f.points = { nose: { frames: [0, 1], x: [1], y: [1], sigma: [1] } })),
      /same length/,
    ],
    [broken((f) => (f.points = { tail: {} })), /“points” has “tail”/],
  ])('that is wrong is refused with the reason', (text, message) => {
    expect(() => readTrackJson(text)).toThrow(message);
  });
});

describe('files of other formats', () => {
  const other = scratchFolder('cli');
  const kick = knownTrack(clean('round-kick'), { rate: 120, noise: 0.001, seed: 1 });
  writeFileSync(join(other, 'kick.trc'), writeTrc(kick, 'kick.trc'));
  writeFileSync(join(other, 'long.csv'), writeCsv(kick, 'long'));
  writeFileSync(join(other, 'wide.csv'), writeCsv(kick, 'wide'));
  const read = (...args: string[]) => {
    const { status, stdout } = sinew('analyze', ...args, '--technique', 'round-kick');
    expect(status).toBe(0);
    return JSON.parse(stdout) as Record<string, Record<string, { time?: number; value?: number }>>;
  };

  it('TRC and both CSV layouts give one and the same answer', () => {
    const [trc, long, wide] = ['kick.trc', 'long.csv', 'wide.csv'].map((name) =>
      read(join(other, name), '--mass', '70', '--height', '1.76'),
    );
    expect(long).toEqual(trc);
    expect(wide).toEqual(trc);
    expect(Object.keys(trc!)).toEqual(
      expect.arrayContaining(['events', 'phases', 'readings', 'links', 'findings']),
    );
    expect(trc!.readings!.momentum!.value).toBeGreaterThan(0);
  });

  it('times count from the first frame, whatever the file’s clock says', () => {
    const late = { ...kick, frameTimes: kick.frameTimes.map((t) => t + 12) };
    writeFileSync(join(other, 'late.json'), writeTrackJson(late));
    const { events } = read(join(other, 'late.json'));
    expect(events!.contact!.time).toBeLessThan(2);
  });

  it('schools are taken as given, several after one --school, and a wrong one is named', () => {
    const args = [join(other, 'kick.trc'), '--school', 'finish=dig', 'hookFist=palm-down'];
    expect(read(...args).school).toMatchObject({ finish: 'dig', hookFist: 'palm-down' });
    const wrong = sinew('analyze', ...args, 'finish=poke', '--technique', 'round-kick');
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toMatch(/finish must be one of by-situation, snap, dig, not "poke"/);
  });

  it('a cutoff can be fixed, within reason', () => {
    const args = [join(other, 'kick.trc'), '--cutoff'];
    const sinkOf = (hz: string) => read(...args, hz).readings!.sink!.value;
    expect(sinkOf('4')).not.toBeCloseTo(sinkOf('25')!, 5);
    expect(sinew('analyze', ...args, '900', '--technique', 'cross').stderr).toMatch(
      /--cutoff must be between 2 and 100 Hz/,
    );
  });

  it('phases and events are written as WebVTT beside', () => {
    const prefix = join(other, 'kick');
    read(join(other, 'kick.trc'), '--vtt', prefix);
    expect(readFileSync(`${prefix}.phases.vtt`, 'utf8')).toMatch(/^WEBVTT[^]*Accelerate/);
    expect(readFileSync(`${prefix}.events.vtt`, 'utf8')).toMatch(/"event":"contact"/);
  });

  it('a folder is gone through file by file, with how far it has come; one bad file spoils no other', () => {
    const folder = scratchFolder('cli');
    writeFileSync(join(folder, 'a.trc'), writeTrc(kick, 'a.trc'));
    writeFileSync(join(folder, 'b.csv'), 'frame,time\n');
    writeFileSync(join(folder, 'notes.txt'), 'not a track');
    const { status, stdout, stderr } = sinew('analyze', folder, '--technique', 'round-kick');
    const lines = stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as object);
    expect(lines).toMatchObject([{ file: 'a.trc' }, { file: 'b.csv' }]);
    expect(lines[0]).toHaveProperty('events');
    expect(lines[1]).toHaveProperty('error');
    expect(stderr).toMatch(/1 of 2: a\.trc[^]*2 of 2: b\.csv[^]*1 of 2 files could not be read/);
    expect(status).toBe(2);
  });
});
