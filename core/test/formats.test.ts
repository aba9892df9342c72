/** The open formats: what is written is read back, and what is broken is refused in words. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { markOnFrame, type Events } from '../src/measure/events/events';
import { csvNames, readCsv, writeCsv } from '../src/format/csv';
import { FormatError } from '../src/format/formatError';
import { likelyLandmark, likelyNaming } from '../src/format/naming';
import { pictureTrack, spaceTrack, type Series } from '../src/format/series';
import { readTrackJson, writeTrackJson } from '../src/format/trackJson';
import { readTrc, trcNames, writeTrc } from '../src/format/trc';
import { readEvents, writeEvents, writePhases } from '../src/format/vtt';
import type { Landmark } from '../src/foundation/body/landmarks';
import type { SpaceTrack } from '../src/observe/track/track';

const full = knownTrack(clean('cross', { contact: 0.5 }), { rate: 60, noise: 0.002, seed: 4 });
/** A short, small track: two landmarks, one of them hidden for a while. */
const track: SpaceTrack = {
  ...full,
  frameTimes: full.frameTimes.slice(0, 12),
  points: Object.fromEntries(
    (['nose', 'rightElbow'] as const).map((name) => {
      const { frames, x, y, z, sigma } = full.points[name]!;
      const keep = frames.filter((f) => f < 12 && (name === 'nose' || f < 4 || f > 7));
      const pick = (list: readonly number[]) => keep.map((f) => list[f]!);
      return [name, { frames: keep, x: pick(x), y: pick(y), z: pick(z!), sigma: pick(sigma) }];
    }),
  ),
};

const FORMATS: [string, string, (text: string) => Series][] = [
  ['TRC', writeTrc(track, 'short.trc'), readTrc],
  ['long CSV', writeCsv(track, 'long'), readCsv],
  ['wide CSV', writeCsv(track, 'wide'), readCsv],
];

/** Everything finite, times ascending, frames in range. */
function expectSound(series: Series): void {
  series.frameTimes.forEach((time, i) => {
    expect(Number.isFinite(time)).toBe(true);
    if (i > 0) expect(time).toBeGreaterThan(series.frameTimes[i - 1]!);
  });
  for (const places of Object.values(series.places)) {
    expect(places).toHaveLength(series.frameTimes.length);
    for (const place of places) place?.forEach((v) => expect(Number.isFinite(v)).toBe(true));
  }
}

describe.each(FORMATS)('%s', (_, text, read) => {
  it('gives back what was written, gaps included', () => {
    const back = spaceTrack(read(text));
    expect(back.frameTimes).toEqual(track.frameTimes);
    for (const [name, { frames, x, y, z }] of Object.entries(track.points)) {
      const own = back.points[name as Landmark]!;
      expect(own.frames).toEqual(frames);
      [own.x, own.y, own.z!].forEach((list, k) =>
        list.forEach((value, i) => expect(value).toBeCloseTo([x, y, z!][k]![i]!, 9)),
      );
    }
  });

  it('cut at any place is read or refused with the line, and never half believed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: text.length }), (length) => {
        try {
          expectSound(read(text.slice(0, length)));
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
          expect((error as Error).message).toMatch(/^(line \d+: )?\S.+/);
        }
      }),
      { numRuns: 150, seed: 3 },
    );
  });

  it('with characters changed is read or refused, without a crash, a hang or a number that is none', () => {
    const change = fc.record({
      at: fc.integer({ min: 0, max: text.length - 1 }),
      by: fc.constantFrom('', '-', '\t', ',', '\n', 'e9', 'NaN', '9', '"', 'Infinity', '\0'),
    });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 4 }), (changes) => {
        let broken = text;
        for (const { at, by } of changes) broken = broken.slice(0, at) + by + broken.slice(at + 1);
        try {
          expectSound(read(broken));
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
      { numRuns: 300, seed: 3 },
    );
  });
});

describe('files as other programs save them', () => {
  const trc = writeTrc(track, 'short.trc');
  const [long, wide] = (['long', 'wide'] as const).map((layout) => writeCsv(track, layout));

  it('may begin with the mark of their encoding', () => {
    const mark = '\uFEFF';
    expect(readTrc(mark + trc)).toEqual(readTrc(trc));
    expect(trcNames(mark + trc)).toEqual(trcNames(trc));
    expect(readCsv(mark + long!)).toEqual(readCsv(long!));
    const json = writeTrackJson(track);
    expect(readTrackJson(mark + json)).toEqual(readTrackJson(json));
  });

  it.each(['', 'NaN', 'nan', 'NA'])('say “%s” where nothing was seen', (nothing) => {
    const three = [nothing, nothing, nothing];
    const row = (text: string, line: number, separator: string, to: (cells: string[]) => void) => {
      const lines = text.split('\n');
      const cells = lines[line]!.split(separator);
      to(cells);
      lines[line] = cells.join(separator);
      return lines.join('\n');
    };
    const inTrc = row(trc, 8, '\t', (cells) => cells.splice(2, 3, ...three));
    expect(readTrc(inTrc).places.nose!.map((place) => place === null)).toEqual(
      readTrc(trc).places.nose!.map((place, i) => place === null || i === 3),
    );
    const at = wide!.split('\n')[0]!.split(',').indexOf('nose_x');
    const inCsv = row(wide!, 4, ',', (cells) => cells.splice(at, 3, ...three));
    expect(readCsv(inCsv).places.nose!.map((place) => place === null)).toEqual(
      readCsv(wide!).places.nose!.map((place, i) => place === null || i === 3),
    );
  });
});

describe('what is wrong is named with its line', () => {
  const trc = writeTrc(track, 'short.trc').split('\n');
  const changed = (line: number, to: (text: string) => string) =>
    trc.map((text, i) => (i === line - 1 ? to(text) : text)).join('\n');

  it.each([
    [changed(1, () => 'something else'), /line 1: a TRC file begins with PathFileType/],
    [changed(3, (l) => l.replace('\tm\t', '\tfurlong\t')), /line 3: units must be m, cm or mm/],
    [changed(3, (l) => l.replace('\t12\t', '\t99\t')), /99 frames, but there are 12/],
    [
      changed(4, (l) => l.replace('nose', 'beak').replace('rightElbow', 'wing')),
      /line 4: no landmark/,
    ],
    [changed(8, (l) => l.replace(/\t[\d.]+\t/, '\tsoon\t')), /line 8: the time is not a number/],
    [changed(8, (l) => l.replace(/\t[\d.]+\t/, '\t0\t')), /line 8: the time does not ascend/],
    [changed(9, (l) => l.replace(/\t[-\d.]+$/, '\tx')), /line 9: rightElbow is not a number: “x”/],
    [changed(9, (l) => l.replace(/\t[-\d.]+$/, '\t0x10')), /line 9: rightElbow is not a number/],
    [changed(9, (l) => l.replace(/\t[-\d.]+$/, '\tNaN')), /line 9: rightElbow is not a number/],
  ])('in a TRC file', (text, message) => {
    expect(() => readTrc(text)).toThrow(message);
  });

  it.each([
    ['', /the file is empty/],
    ['frame,time,landmark,x,y\n0,0,nose,1,2\n0,0.1,nose,1,2', /line 3: frame 0 has two times/],
    [
      'frame,time,landmark,x,y\n0,0,nose,1,2\n0,0,nose,1,2\n1,1,nose,1,2',
      /line 3: nose stands twice/,
    ],
    ['frame,time,landmark,x,y\n0,0,nose,1\n', /line 2: 4 values where the header has 5/],
    ['frame,time,nose_x\n0,0,1\n1,1,1', /line 1: there is no column “nose_y”/],
    ['frame,time,tail_x,tail_y\n0,0,1,2', /line 1: no landmark of Sinew’s among “tail”/],
    [
      '# metres per pixel: -1\nframe,time,nose_x,nose_y\n0,0,1,2\n1,1,1,2',
      /line 1: metres per pixel/,
    ],
    ['frame,time,nose_x,nose_y\n0.5,0,1,2\n1,1,1,2', /line 2: frame must be a whole number/],
    ['frame;time;nose_x;nose_y\n0;0;1;2\n1;1;1;2', /line 1: .* semicolons; save .* commas/],
    ['frame\ttime\tnose_x\tnose_y\n0\t0\t1\t2', /line 1: .* tabs; save .* commas/],
  ])('in a CSV file', (text, message) => {
    expect(() => readCsv(text)).toThrow(message);
  });

  it('and names that are no landmarks are left out and told', () => {
    const { ignored, places } = readCsv(
      'frame,time,nose_x,nose_y,tail_x,tail_y\n0,0,1,2,3,4\n1,1,1,2,3,4',
    );
    expect(ignored).toEqual(['tail']);
    expect(Object.keys(places)).toEqual(['nose']);
  });
});

it('a picture’s CSV says what its pixels mean', () => {
  const file = readCsv(
    '# metres per pixel: 0.0025\n# target: 1 -0.1\nframe,time,nose_x,nose_y\n0,0,1,2\n1,1,1,3',
  );
  expect(file).toMatchObject({ metresPerPixel: 0.0025, target: [1, -0.1], space: '2d' });
  expect(pictureTrack(file)).toMatchObject({ space: '2d', source: 'measured-2d' });
});

// Third differences of independent noise: σ √20 (the sum of the squares 1, 9, 9, 1).
it('the noise of a file without σ is read off the series, and the strike does not pass for it', () => {
  for (const noise of [0.001, 0.003]) {
    const noisy = knownTrack(clean('cross'), { rate: 240, noise, seed: 8 });
    const back = spaceTrack(readCsv(writeCsv(noisy, 'long')));
    const sigmas = Object.values(back.points).map(({ sigma }) => sigma[0]!);
    for (const sigma of sigmas) expect(sigma / noise).toBeGreaterThan(0.8);
    for (const sigma of sigmas) expect(sigma / noise).toBeLessThan(1.25);
  }
});

describe('Sinew’s own JSON', () => {
  const text = writeTrackJson(track);
  it('with characters changed is read or refused', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: text.length - 1 }),
        fc.constantFrom('', '"', '9', '-', ',', ']', 'e'),
        (at, by) => {
          try {
            const { frameTimes } = readTrackJson(text.slice(0, at) + by + text.slice(at + 1));
            frameTimes.forEach((time) => expect(Number.isFinite(time)).toBe(true));
          } catch (error) {
            expect(error).toBeInstanceOf(FormatError);
          }
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});

describe('marks as WebVTT', () => {
  const frameTimes = Array.from({ length: 240 }, (_, i) => i / 240);
  const events: Events = {
    load: markOnFrame(frameTimes, 20),
    hips: markOnFrame(frameTimes, 60),
    trunk: markOnFrame(frameTimes, 70),
    contact: markOnFrame(frameTimes, 120),
    end: markOnFrame(frameTimes, 123),
    footLift: markOnFrame(frameTimes, 90),
  };

  it('come back as they were, with their σ; what no coach marks is passed over', () => {
    const { footLift: _, ...marks } = events;
    expect(readEvents(writeEvents(events), frameTimes)).toEqual(marks);
  });

  it('phases are chapters, in order, and none that did not take place', () => {
    const text = writePhases(events);
    expect(text).toMatch(/^WEBVTT/);
    expect(text.match(/Load|Explode|Accelerate|Follow-through|Recover/g)).toEqual([
      'Load',
      'Explode',
      'Accelerate',
      'Follow-through',
    ]);
    expect(text).toContain('00:00:00.250 --> 00:00:00.291');
  });

  it.each([
    ['not a film', /not WebVTT/],
    ['WEBVTT\n\n00:00.000 --> 00:01.000\nhello', /cue 1: the text is not JSON/],
    [
      'WEBVTT\n\n00:00.000 --> 00:01.000\n{"event":"hips","time":7,"sigma":0}',
      /not within the film/,
    ],
    ['WEBVTT\n\n00:00.000 --> 00:01.000\n{"event":"hips","time":0.1}', /cue 1: “sigma” is missing/],
  ])('that make no sense are refused: %j', (text, message) => {
    expect(() => readEvents(text, frameTimes)).toThrow(message);
  });

  it('cut or changed anywhere are read or refused', () => {
    const text = writeEvents(events);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: text.length - 1 }),
        fc.constantFrom('', '\n', ':', '}', '9', '-->'),
        (at, by) => {
          for (const broken of [text.slice(0, at), text.slice(0, at) + by + text.slice(at + 1)]) {
            try {
              for (const mark of Object.values(readEvents(broken, frameTimes))) {
                expect(Number.isFinite(mark.time + mark.sigma)).toBe(true);
              }
            } catch (error) {
              expect(error).toBeInstanceOf(FormatError);
            }
          }
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});

describe('names of other programs', () => {
  it.each([
    ['rightElbow', 'rightElbow'],
    ['RELB', 'rightElbow'],
    ['L.Shoulder', 'leftShoulder'],
    ['left_knee', 'leftKnee'],
    ['RHEE', 'rightHeel'],
    ['LTOE', 'leftToe'],
    ['ankle_r', 'rightAnkle'],
    ['Nose', 'nose'],
    ['LASI', 'leftHip'],
    ['pinky_left', 'leftLittleKnuckle'],
    ['C7', null],
    ['shoulder', null],
    ['', null],
    ['constructor', null],
  ])('%s most likely means %s', (name, landmark) => {
    expect(likelyLandmark(name)).toBe(landmark);
  });

  it('give each landmark away once, to its own name first', () => {
    expect(likelyNaming(['LKNE', 'leftKnee', 'left_knee', 'T10'])).toEqual({
      leftKnee: 'leftKnee',
    });
  });

  it('a file with foreign names is read through its naming, and not without', () => {
    const track = knownTrack(clean('cross'), { rate: 60, noise: 0, seed: 1 });
    for (const [text, read, namesOf] of [
      [writeTrc(track, 'lab').replaceAll('rightElbow', 'RELB'), readTrc, trcNames],
      [writeCsv(track, 'long').replaceAll('rightElbow', 'RELB'), readCsv, csvNames],
      [writeCsv(track, 'wide').replaceAll('rightElbow', 'RELB'), readCsv, csvNames],
    ] as const) {
      const names = namesOf(text);
      expect(names).toContain('RELB');
      expect(read(text).places.rightElbow).toBeUndefined();
      expect(read(text).ignored).toEqual(['RELB']);
      const places = read(text, likelyNaming(names)).places.rightElbow!;
      expect(places[7]![0]).toBeCloseTo(track.points.rightElbow!.x[7]!, 9);
      expect(() => read(text, { RELB: 'nose', nose: 'nose' })).toThrow('two names');
      expect(() => read(text, {})).toThrow('no landmark');
    }
  });
});
