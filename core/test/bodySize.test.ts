/** A file whose unit was mistaken is refused with the reason, whoever is in it. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { measure } from '../src/analysis/analyze';
import { MOST_FRAMES } from '../src/format/series';
import { readCsv } from '../src/format/csv';
import { readTrc, writeTrc } from '../src/format/trc';
import { techniqueById } from '../src/foundation/technique/techniques';
import { sizeProblem } from '../src/observe/track/bodySize';
import type { Points, SpaceTrack } from '../src/observe/track/track';

const by = (factor: number, height = 1.76): SpaceTrack => {
  const track = knownTrack(clean('cross', { height }), { rate: 120, noise: 0.001, seed: 1 });
  const points = Object.fromEntries(
    Object.entries(track.points).map(([name, own]: [string, Points]) => {
      const [x, y, z] = [own.x, own.y, own.z!].map((values) => values.map((v) => factor * v));
      return [name, { ...own, x: x!, y: y!, z: z! }];
    }),
  );
  return { ...track, points };
};

describe('the size of what a file shows', () => {
  it.each([1.2, 1.5, 1.76, 2.1])('is a person’s, %d m tall', (height) => {
    expect(sizeProblem(by(1, height), null)).toBeNull();
    expect(sizeProblem(by(1, height), height)).toBeNull();
  });

  it.each([
    [1000, /^lengths are 1000 times a person’s: is the file in millimetres\?$/],
    [100, /100 times a person’s: is the file in centimetres\?/],
    [0.001, /0\.001 times a person’s: is the file in metres, and said to be in millimetres\?/],
    [7, /^lengths are 7\.\d times a person’s: which unit is the file in\?$/],
    [1e200, /^lengths are 1e\+200 times/],
  ])('%d times as large is refused with the likely reason', (factor, says) => {
    expect(sizeProblem(by(factor), null)).toMatch(says);
    const strike = { technique: techniqueById('cross'), side: 'right' } as const;
    expect(() => measure({ strike, track: by(factor), marks: {} })).toThrow(says);
  });

  it('is held against the student’s own height where it is known', () => {
    expect(sizeProblem(by(1.6), null)).toBeNull();
    expect(sizeProblem(by(1.6), 1.76)).toMatch(
      /^lengths are 1\.6 times those of somebody 1\.76 m tall/,
    );
  });

  it('is not told without a limb', () => {
    const { nose } = by(1).points;
    expect(sizeProblem({ ...by(1), points: { nose } }, null)).toBeNull();
  });
});

describe('a file that is too long', () => {
  const says = /^too long: at most 200,000 frames; cut the strikes out of it$/;
  const rows = MOST_FRAMES + 1;

  it('is refused before its rows are read', () => {
    const head = 'frame,time,nose_x,nose_y,nose_z\n';
    const line = (i: number) => `${i},${i / 240},0,1.7,0`;
    expect(() =>
      readCsv(head + Array.from({ length: rows }, (_, i) => line(i)).join('\n')),
    ).toThrow(says);
    // Nonsense behind the last frame that is read shows that nothing is made of it.
    const long =
      'frame,time,landmark,x,y\n' +
      Array.from({ length: rows }, (_, i) => `${i},0,nose,0,0`).join('\n');
    expect(() => readCsv(`${long}\n"`)).toThrow(says);
    const trc = writeTrc(by(1), 'a.trc');
    expect(() => readTrc(trc + '\n0'.repeat(rows + 100))).toThrow(says);
  });

  it('is not mistaken for one with many landmarks, landmark by landmark', () => {
    const text = ['nose', 'leftEar', 'rightEar'].flatMap((name) =>
      Array.from({ length: 500 }, (_, i) => `${i},${i / 240},${name},0,0`),
    );
    expect(readCsv(`frame,time,landmark,x,y\n${text.join('\n')}`).frameTimes).toHaveLength(500);
  });
});
