/** Two films of a take that nothing joins but the clock: each read by itself, the surer word taken. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import type { View } from '../src/foundation/technique/techniques';
import { besidesOf, measureStrike } from '../src/analysis/analyze';
import { atOurClock, instantsThere, readInOther } from '../src/analysis/otherFilm';
import { seeStrike } from '../src/analysis/seenStrike';
import {
  absent,
  halfWidth,
  isAbsent,
  reading,
  type Measured,
} from '../src/foundation/reading/reading';
import type { MeasureId, Readings } from '../src/measure/measures/allMeasures';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';

const all = (one: Partial<Record<MeasureId, Measured>>) => one as Readings;
const read = (value: number, sigma: number, unit: 'm' | 's' = 'm') =>
  reading(value, unit, sigma, 'measured-2d', [2]);
const HERE = { frameTimes: [0, 0.1, 0.2, 0.3, 0.4] };
const THERE = { frameTimes: [0.05, 0.15, 0.31] };
const joined = (own: Measured, other: Measured) =>
  readInOther(all({ sink: own }), HERE, all({ sink: other }), THERE).sink;

describe('of two readings', () => {
  it('the one that is there is taken, at the nearest frame of the film in hand', () => {
    const found = joined(absent('not from here'), read(0.1, 0.02));
    expect(found).toMatchObject({ value: 0.1, sigma: 0.02, isElsewhere: true, frames: [3] });
    expect(joined(read(0.1, 0.02), absent('not from there'))).toEqual(read(0.1, 0.02));
  });

  it('the surer one is taken, wherever it is from', () => {
    expect(joined(read(0.1, 0.02), read(0.11, 0.01))).toMatchObject({ value: 0.11, sigma: 0.01 });
    expect(joined(read(0.1, 0.01), read(0.11, 0.02))).toEqual(read(0.1, 0.01));
  });

  it('further apart than both allow, neither is as sure as it says (Birge 1932)', () => {
    // 0.3 apart, σ of the difference √(0.03² + 0.04²) = 0.05: six times.
    const found = joined(read(0.1, 0.03), read(0.4, 0.04));
    expect(found).toMatchObject({ value: 0.1, sigma: expect.closeTo(0.18, 9) });
  });

  it('a span of time stays with the instants of its own film', () => {
    expect(joined(read(0.1, 0.02, 's'), read(0.12, 0.001, 's'))).toEqual(read(0.1, 0.02, 's'));
  });

  it('a picture goes before a guess, however sure that is of itself', () => {
    const guess = reading(0.5, 'm', 0.001, 'estimated-3d', [1]);
    expect(joined(guess, read(0.1, 0.2))).toMatchObject({ value: 0.1, isElsewhere: true });
    expect(joined(read(0.1, 0.2), guess)).toEqual(read(0.1, 0.2));
  });
});

it('an instant is as unsure there as the clocks are, on that film’s own frame', () => {
  const offset = { seconds: 0.5, sigma: 0.004, by: 'sound', pairs: 1 } as const;
  const times = atOurClock([0.5, 0.6, 0.7], offset);
  const contact = { frame: 40, time: 0.21, sigma: 0.003, source: 'eye' } as const;
  expect(instantsThere({ contact }, times, offset).contact).toMatchObject({
    frame: 2,
    time: 0.21,
    sigma: expect.closeTo(0.005, 9),
  });
});

describe('a strike seen from two sides', () => {
  const seen = (technique: 'cross' | 'lead-hook', view: View, seed: number, late: number) => {
    const recipe = clean(technique);
    const truth = truthOfStrike(recipe);
    const { track, calibration } = knownPicture(recipe, view, { rate: 120, noise: 0.003, seed });
    const strike = { technique: truth.technique, side: truth.side, stance: recipe.stance };
    const offset = { seconds: late, sigma: 0.002, by: 'sound', pairs: 1 } as const;
    const frameTimes = atOurClock(
      track.frameTimes.map((time) => time + late),
      offset,
    );
    const frame = nearestFrame(track.frameTimes, recipe.contact);
    const contact = markOnFrame(track.frameTimes, frame);
    const source = { track: { ...track, frameTimes }, calibration };
    return {
      truth,
      strike,
      seen: seeStrike(source, strike, instantsThere({ contact }, frameTimes, offset)),
    };
  };

  it('has more readings than from either, and the truth within ± of those that are known', () => {
    let [inside, told] = [0, 0];
    for (const technique of ['cross', 'lead-hook'] as const) {
      for (const seed of [1, 2, 3]) {
        const side = seen(technique, 'side', seed, 0);
        const above = seen(technique, 'above', seed + 50, 0.37);
        const facts = { strike: side.strike, body: { height: 1.76, mass: 70 } };
        const alone = [side, above].map((one) =>
          measureStrike(facts, one.seen, besidesOf(one.seen)),
        );
        const both = measureStrike(facts, side.seen, besidesOf(side.seen), above.seen);
        const present = (readings: Readings) =>
          Object.values(readings).filter((one) => !isAbsent(one));
        for (const { readings } of alone) {
          expect(present(both.readings).length).toBeGreaterThan(present(readings).length);
        }
        expect(both.events).toEqual(alone[0]!.events);
        for (const [id, truth] of Object.entries(side.truth.values)) {
          const found = both.readings[id as MeasureId];
          if (isAbsent(found)) continue;
          told++;
          if (Math.abs(found.value - truth) <= halfWidth(found)) inside++;
        }
      }
    }
    expect(told).toBeGreaterThan(25);
    expect(inside / told).toBeGreaterThan(0.85);
  });
});
