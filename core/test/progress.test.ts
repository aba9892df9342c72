/** Reliability, change, trends, fatigue, comparison. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import type { Readings } from '../src/measure/measures/allMeasures';
import { MEASURE_IDS } from '../src/measure/measures/allMeasures';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { NO_SCHOOL, resolve } from '../src/judge/school/resolve';
import { changeBetween, notComparable, wantedOf } from '../src/train/progress/change';
import { differencesOf } from '../src/train/progress/compare';
import { fatigueOf } from '../src/train/progress/fatigue';
import { bestForms } from '../src/train/progress/ladder';
import { reliabilityOf } from '../src/train/progress/reliability';
import { noiseBand, trendOf } from '../src/train/progress/trend';
import { absent, type Reading } from '../src/foundation/reading/reading';
import { slopeOf } from '../src/foundation/uncertainty/slope';

const numbers = z.array(z.number());
const fixture = z
  .object({
    lines: z.array(
      z.object({
        x: numbers,
        y: numbers,
        slope: z.number(),
        stderr: z.number(),
        halfWidth: z.number(),
      }),
    ),
    tables: z.array(z.object({ table: z.array(numbers), typicalError: z.number() })),
  })
  .parse(JSON.parse(readFileSync(new URL('./fixtures/progress.json', import.meta.url), 'utf8')));

const reading = (value: number, sigma: number, unit: Reading['unit'] = 's'): Reading => ({
  value,
  unit,
  sigma,
  source: 'measured-2d',
  frames: [],
});

describe('repeated markings', () => {
  // Shrout and Fleiss 1979, table 2: six targets, four judges. Values from memory of the paper.
  const SHROUT_FLEISS = [
    [9, 2, 5, 8],
    [6, 1, 3, 2],
    [8, 4, 6, 8],
    [7, 1, 2, 6],
    [10, 5, 6, 9],
    [6, 2, 4, 7],
  ];

  it('agree as in the worked example of Shrout and Fleiss (ICC(2,1) 0.29, ICC(3,1) 0.71)', () => {
    const { icc21, icc31, subjects, trials } = reliabilityOf(SHROUT_FLEISS)!;
    expect(icc21).toBeCloseTo(0.29, 2);
    expect(icc31).toBeCloseTo(0.71, 1);
    expect([subjects, trials]).toEqual([6, 4]);
    // Its residual mean square is 1.02 (table 3 of the paper).
    expect(reliabilityOf(SHROUT_FLEISS)!.typicalError ** 2).toBeCloseTo(1.02, 2);
  });

  it('have the residual of a two-way least squares fit (NumPy)', () => {
    for (const { table, typicalError } of fixture.tables) {
      expect(reliabilityOf(table)!.typicalError).toBeCloseTo(typicalError, 10);
    }
  });

  it('of two trials have a typical error of SD of the differences ÷ √2 (Hopkins 2000)', () => {
    const value = fc.double({ min: -10, max: 10, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(value, value), { minLength: 3, maxLength: 20 }), (table) => {
        const found = reliabilityOf(table);
        if (!found) return;
        const differences = table.map(([a, b]) => b - a);
        const mean = differences.reduce((s, d) => s + d, 0) / differences.length;
        const sd = Math.sqrt(
          differences.reduce((s, d) => s + (d - mean) ** 2, 0) / (differences.length - 1),
        );
        expect(found.typicalError).toBeCloseTo(sd / Math.SQRT2, 8);
        expect(found.smallestChange).toBeCloseTo(1.96 * sd, 8);
      }),
    );
  });

  it('that are too few, have gaps or never differ say nothing', () => {
    expect(reliabilityOf([[1, 2]])).toBeNull();
    expect(reliabilityOf([[1], [2]])).toBeNull();
    expect(
      reliabilityOf([
        [1, 2],
        [3, NaN],
      ]),
    ).toBeNull();
    expect(reliabilityOf([[1, 2], [3]])).toBeNull();
    expect(
      reliabilityOf([
        [5, 5],
        [5, 5],
      ]),
    ).toBeNull();
  });
});

describe('a slope', () => {
  it('of points that scatter more than their σ is that of ordinary regression (SciPy linregress)', () => {
    for (const { x, y, slope, stderr, halfWidth } of fixture.lines) {
      const found = slopeOf(x.map((at, i) => ({ x: at, value: y[i]!, sigma: 1e-6 })))!;
      expect(found.slope).toBeCloseTo(slope, 9);
      expect(found.sigma).toBeCloseTo(stderr, 9);
      expect(found.halfWidth).toBeCloseTo(halfWidth, 8);
    }
  });

  it('is not surer than the points themselves', () => {
    const exact = [0, 1, 2, 3].map((x) => ({ x, value: 2 * x, sigma: 0.5 }));
    expect(slopeOf(exact)!.sigma).toBeCloseTo(0.5 / Math.sqrt(5), 12);
    expect(slopeOf(exact.slice(0, 2))).toBeNull();
    expect(slopeOf(exact.map((point) => ({ ...point, x: 1 })))).toBeNull();
  });
});

describe('a trend', () => {
  const weeks = (values: readonly number[], sigma: number) =>
    values.map((value, i) => ({
      day: `2026-03-${String(1 + 7 * i).padStart(2, '0')}`,
      value,
      sigma,
    }));

  it('is told a week, over clock changes too', () => {
    const trend = trendOf(weeks([10, 12, 14, 16, 18], 0.1))!;
    expect(trend.perWeek).toBeCloseTo(2, 9);
    expect(trend.isReal).toBe(true);
    expect(trendOf(weeks([10, 12], 0.1))).toBeNull();
  });

  it('that is none is claimed in about 5 of 100 cases (Student’s t)', () => {
    let state = 1;
    const random = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
    const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
    let claimed = 0;
    const runs = 4000;
    for (let i = 0; i < runs; i++) {
      if (trendOf(weeks([0, 0, 0, 0, 0].map(normal), 1e-3))!.isReal) claimed += 1;
    }
    // Binomial, 4000 × 0.05: σ 0.0034.
    expect(claimed / runs).toBeGreaterThan(0.035);
    expect(claimed / runs).toBeLessThan(0.065);
  });

  it('has a band of noise round where it began', () => {
    const first = { day: '2026-03-01', value: 10, sigma: 1 };
    expect(noiseBand(first, null).to).toBeCloseTo(10 + 1.96 * Math.SQRT2, 9);
    expect(noiseBand(first, 2).from).toBeCloseTo(10 - 2 * 1.96 * Math.SQRT2, 9);
  });
});

describe('then and now', () => {
  const SETS = { strikes: [3, 3] } as const;
  it('differ when they are further apart than two honest measurements', () => {
    const [then, now] = [reading(0.01, 0.005), reading(0.03, 0.005)];
    expect(changeBetween(then, now, 'more', SETS)).toMatchObject({ verdict: 'better' });
    expect(changeBetween(then, now, 'less', SETS)).toMatchObject({ verdict: 'worse' });
    expect(changeBetween(then, now, null, SETS)).toMatchObject({ verdict: 'changed' });
    expect(changeBetween(then, reading(0.02, 0.005), 'more', SETS)).toMatchObject({
      verdict: 'noise',
    });
    expect(
      changeBetween(reading(-0.1, 0.01), reading(0.02, 0.01), 'nearer-zero', SETS),
    ).toMatchObject({
      verdict: 'better',
    });
  });

  it('are never claimed to differ by single strikes, or by two', () => {
    const [then, now] = [reading(0.01, 0.001), reading(0.5, 0.001)];
    for (const strikes of [
      [1, 1],
      [2, 9],
      [9, 2],
    ] as const) {
      expect(changeBetween(then, now, 'more', { strikes })).toMatchObject({ verdict: 'few' });
      expect(changeBetween(then, then, 'more', { strikes })).toMatchObject({ verdict: 'noise' });
    }
    expect(changeBetween(then, now, 'more', SETS)).toMatchObject({ verdict: 'better' });
  });

  it('have to beat the typical error of marking, less so over more strikes', () => {
    const [then, now] = [reading(0.01, 0.001), reading(0.03, 0.001)];
    const typical = { typicalError: 0.01, strikes: [1, 1] as const };
    expect(changeBetween(then, now, 'more', typical)).toMatchObject({ verdict: 'noise' });
    expect(changeBetween(then, now, 'more', { ...typical, strikes: [9, 9] })).toMatchObject({
      verdict: 'better',
    });
  });

  it('are claimed to differ in at most 5 of 100 cases when nothing changed', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (z) => {
        const change = changeBetween(reading(0, 1), reading(z * Math.SQRT2, 1), null, SETS);
        expect('verdict' in change && change.verdict).toBe(
          Math.abs(z) <= 1.96 ? 'noise' : 'changed',
        );
      }),
    );
  });

  const film = { technique: 'cross', side: 'right', view: 'side', intent: 'full' } as const;
  it.each([
    [{ technique: 'jab' }, 'they are different strikes'],
    [{ side: 'left' }, 'one is of the left, one of the right side'],
    [{ view: 'above' }, 'one was filmed from the side, one from above'],
    [{ intent: 'slow' as const }, 'one was meant full, one slow'],
    [{ intent: null }, 'how hard it was meant is said of one only'],
    [{}, null],
  ])('are not held against each other when %j differs', (change, why) => {
    expect(notComparable(film, { ...film, ...change })).toBe(why);
  });

  it('are comparable from any side when both are measured in space', () => {
    expect(
      notComparable(film, { ...film, view: 'front' }, ['measured-3d', 'measured-3d']),
    ).toBeNull();
    expect(notComparable(film, { ...film, view: 'front' }, ['measured-3d', 'eye'])).not.toBeNull();
  });

  it('know which way is better from the leaks', () => {
    expect(wantedOf('lead.hipsTrunk', 'cross', USUAL_RULES)).toBe('more');
    // Where all leaves together, hips that leave alone are the leak.
    const together = resolve({ ...NO_SCHOOL, gym: { order: 'together' } });
    expect(wantedOf('lead.hipsTrunk', 'cross', { ...USUAL_RULES, school: together })).toBe('less');
    expect(wantedOf('speed.contact', 'cross', USUAL_RULES)).toBe('more');
    expect(
      wantedOf('phase.load', 'cross', { ...USUAL_RULES, catalogue: { faults: [], drills: [] } }),
    ).toBeNull();
  });
});

const nothing = Object.fromEntries(
  MEASURE_IDS.map((id) => [id, absent('Not placed.')]),
) as unknown as Readings;

describe('two strikes side by side', () => {
  const film = {
    technique: 'cross',
    side: 'right',
    view: 'side',
    intent: null,
    strikes: 3,
  } as const;
  it('have what really changed first and what cannot be compared last', () => {
    const then = {
      ...film,
      readings: {
        ...nothing,
        'lead.hipsTrunk': reading(0.004, 0.004),
        'phase.load': reading(0.3, 0.01),
        'speed.contact': reading(7, 0.1, 'm/s'),
      },
    };
    const now = {
      ...film,
      readings: {
        ...nothing,
        'lead.hipsTrunk': reading(0.035, 0.004),
        'phase.load': reading(0.31, 0.01),
      },
    };
    const found = differencesOf(then, now, USUAL_RULES);
    expect(found.map(({ id }) => id)).toEqual(['lead.hipsTrunk', 'phase.load', 'speed.contact']);
    expect(found.map(({ change }) => ('verdict' in change ? change.verdict : 'not'))).toEqual([
      'better',
      'noise',
      'not',
    ]);
    expect(found[2]!.change).toEqual({ notComparable: 'now: not placed' });
  });
});

describe('rounds', () => {
  const strike = (height: number): Readings => ({
    ...nothing,
    'stance.height': reading(height, 0.004, 'm'),
  });
  it('that stand up slowly are told a round, with their confidence', () => {
    const rounds = [0.9, 0.92, 0.935, 0.955].map((height, round) => ({
      round,
      strikes: [strike(height - 0.002), strike(height), strike(height + 0.002)],
    }));
    const [height, separation] = fatigueOf(rounds);
    expect(height).toMatchObject({ id: 'stance.height', isReal: true });
    expect('slope' in height! && height.slope).toBeCloseTo(0.018, 3);
    expect(separation).toEqual({ id: 'separation.max', absent: 'Not placed.' });
    expect(fatigueOf(rounds.slice(0, 2))[0]).toHaveProperty('absent');
  });
});

it('the best form at each distance stands alone or with those that cannot be told from it', () => {
  const rung = (distance: number, form: string, value: number) => ({
    distance,
    form,
    value,
    sigma: 0.5,
  });
  const best = bestForms([
    rung(0.5, 'elbow-round', 9),
    rung(0.5, 'cross', 4),
    rung(0.8, 'cross', 9.4),
    rung(0.8, 'rear-hook', 8.9),
  ]);
  expect(best.map(({ best: forms }) => forms)).toEqual([['elbow-round'], ['cross', 'rear-hook']]);
});

it('every measure that tires is a measure', () => {
  for (const { id } of fatigueOf([])) expect(MEASURE_IDS).toContain(id);
});
