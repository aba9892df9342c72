/** The phases' band: every phase has its place and its name, however short it is. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import type { EventName, Marks } from '@sinew/core/measure/events/events';
import { inOneRow, stretchesOf } from '@/screens/bench/strip/phaseBand';
import { peakIn } from '@/screens/bench/strip/StripCascade';

const at = (times: Partial<Record<EventName, number>>): Marks =>
  Object.fromEntries(
    Object.entries(times).map(([name, time]) => [
      name,
      { time, frame: Math.round(time * 240), sigma: 0.002, source: 'eye' },
    ]),
  ) as Marks;
const reading = (value: number) => ({ value, sigma: 0.0015, unit: 's', source: 'eye', frames: [] });
const readings = {
  'phase.load': reading(0.2),
  'phase.explode': reading(0),
  'phase.accelerate': reading(0.2),
  'phase.follow-through': reading(0.01),
  'phase.recover': reading(0.2),
} as unknown as Readings;
const WHOLE = { load: 0.2, hips: 0.4, trunk: 0.4, contact: 0.6, end: 0.61, home: 0.8 };

describe('the stretches', () => {
  it('are the four phases and the way home, one of no length among them', () => {
    const found = stretchesOf(at(WHOLE), readings);
    expect(found.map(({ name, short }) => `${name} ${short}`)).toEqual([
      'Load 200 ms',
      'Explode 0 ms',
      'Accelerate 200 ms',
      'Follow-through 10 ms',
      'Recover 200 ms',
    ]);
    expect(found[1]).toMatchObject({ from: 0.4, to: 0.4, value: '0 ± 3 ms', missing: [] });
  });

  it('run together where the instant between them is not known, and say which', () => {
    const { hips: _, trunk: __, ...seen } = WHOLE;
    const [first, ...rest] = stretchesOf(at(seen), readings);
    expect(first).toMatchObject({
      name: 'Load, explode, accelerate',
      from: 0.2,
      to: 0.6,
      value: '',
      missing: ['hips', 'trunk'],
    });
    expect(rest.map(({ name }) => name)).toEqual(['Follow-through', 'Recover']);
  });

  it('begin at the first known instant and end at the last', () => {
    expect(stretchesOf(at({ contact: 0.6 }), readings)).toEqual([]);
    expect(stretchesOf(at({ contact: 0.6, end: 0.62 }), null)).toMatchObject([
      { name: 'Follow-through', value: '' },
    ]);
  });
});

describe('their names in one row', () => {
  const label = fc.record({
    centre: fc.double({ min: -200, max: 1200, noNaN: true }),
    width: fc.double({ min: 10, max: 180, noNaN: true }),
  });

  it('never lie over one another, and stay inside where they fit', () => {
    fc.assert(
      fc.property(fc.array(label, { maxLength: 5 }), (labels) => {
        const sorted = [...labels].sort((a, b) => a.centre - b.centre);
        const starts = inOneRow(sorted, [0, 1000]);
        sorted.forEach(({ width }, i) => {
          const next = starts[i + 1] ?? 1000;
          expect(starts[i]).toBeGreaterThanOrEqual(-1e-6);
          expect(starts[i]! + width).toBeLessThanOrEqual(next + 1e-6);
        });
      }),
    );
  });

  it('stand over their stretches where nothing is in the way, else share the shift', () => {
    expect(
      inOneRow(
        [
          { centre: 100, width: 60 },
          { centre: 400, width: 60 },
        ],
        [0, 1000],
      ),
    ).toEqual([70, 370]);
    expect(
      inOneRow(
        [
          { centre: 500, width: 100 },
          { centre: 500, width: 100 },
        ],
        [0, 1000],
      ),
    ).toEqual([400, 500]);
    expect(inOneRow([{ centre: 990, width: 100 }], [0, 1000])).toEqual([900]);
  });
});

describe('a peak of the cascade', () => {
  const times = [0, 1, 2, 3, 4];

  it('is the largest up to contact, and none where it still rises at the end of what is seen', () => {
    expect(peakIn({ times, values: [0, 3, 1, 9, 2] }, 2)).toBe(1);
    expect(peakIn({ times, values: [0, 3, 1, 9, 2] }, Infinity)).toBe(3);
    expect(peakIn({ times, values: [0, 1, 2, 3, 4] }, Infinity)).toBeNull();
    expect(peakIn({ times, values: [0, -1, -2, -1, 0] }, Infinity)).toBeNull();
    expect(peakIn({ times: [], values: [] }, 1)).toBeNull();
  });
});
