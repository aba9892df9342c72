/** Hits and breaths in a recording, two clocks laid over each other, strikes found in a take. */
import { describe, expect, it } from 'vitest';
import {
  hitsHeard,
  offsetTrials,
  soundTrials,
  splitTrials,
  trueHits,
} from '@sinew/fighters/trials/capture';
import { activityOf, randomTake } from '@sinew/fighters/film/randomTake';
import { distanceTo, hitsOf, DEMO_TAKE } from '@sinew/fighters/film/takes';
import { heardBy, SOUND_RATE } from '@sinew/fighters/film/sound';
import { EnvelopeMaker, HOP } from '../src/observe/sound/envelope';
import { findBreaths, findHits } from '../src/observe/sound/onsets';
import { offsetByEye, offsetBySound, SPEED_OF_SOUND } from '../src/observe/sound/sync';
import { findStrikes, seenTime } from '../src/observe/take/strikes';
import { normal, seeded } from '../src/foundation/uncertainty/random';

const SEEDS = Array.from({ length: 8 }, (_, i) => i + 1);
const [side, front] = DEMO_TAKE.films;

function envelopeOf(samples: Float32Array, pieces = 1) {
  const maker = new EnvelopeMaker(SOUND_RATE);
  const size = Math.ceil(samples.length / pieces);
  for (let i = 0; i < pieces; i++) {
    maker.add(samples.subarray(i * size, (i + 1) * size), (i * size) / SOUND_RATE);
  }
  return maker.finish();
}

const noise = (seconds: number, loudness: number) => {
  const random = seeded(5);
  return Float32Array.from({ length: seconds * SOUND_RATE }, () => loudness * normal(random));
};

describe('the speed of sound', () => {
  // c = 331.3 √(1 + T / 273.15) m/s (ideal gas; common textbook formula, from memory).
  it('is that of air at 20 °C', () => {
    expect(SPEED_OF_SOUND).toBeCloseTo(331.3 * Math.sqrt(1 + 20 / 273.15), 0);
  });
});

describe('hits in the sound of a take', () => {
  it('are all found, to a fifth of a millisecond, and nothing else is', () => {
    const found = soundTrials(0.004, SEEDS);
    expect(found).toMatchObject({ missed: 0, invented: 0 });
    expect(found.all).toBeGreaterThan(25);
    const worst = [...found.errors].map(Math.abs).sort((a, b) => a - b);
    expect(worst[Math.floor(0.9 * worst.length)]!).toBeLessThan(0.00025);
  });

  it('come from the pieces of a recording as from the whole', () => {
    const samples = heardBy(DEMO_TAKE, side!);
    expect(findHits(envelopeOf(samples, 37))).toEqual(findHits(envelopeOf(samples)));
  });

  it('are not heard in noise, in a hum that swells, or in silence', () => {
    const hum = Float32Array.from(
      { length: 3 * SOUND_RATE },
      (_, i) => 0.3 * (i / (3 * SOUND_RATE)) * Math.sin((2 * Math.PI * 110 * i) / SOUND_RATE),
    );
    for (const samples of [noise(3, 0.05), hum, new Float32Array(SOUND_RATE)]) {
      expect(findHits(envelopeOf(samples))).toEqual([]);
    }
  });

  it('are those of the room alone where a recording has lost stretches of its sound', () => {
    const samples = heardBy(DEMO_TAKE, side!);
    const hits = findHits(envelopeOf(samples));
    const cut = samples.slice();
    // A tenth of a second out of three, wherever nothing is hit.
    for (let i = 0; i + 4800 < cut.length; i += 14_400) {
      const [from, to] = [i / SOUND_RATE, (i + 4800) / SOUND_RATE];
      if (hits.every(({ time }) => time < from - 0.2 || time > to + 0.2)) cut.fill(0, i, i + 4800);
    }
    expect(findHits(envelopeOf(cut)).map(({ time }) => time)).toEqual(hits.map(({ time }) => time));
  });

  it('that drown in the room are missed rather than guessed', () => {
    const found = soundTrials(0.06, SEEDS);
    expect(found.invented).toBe(0);
    expect(found.missed).toBeGreaterThan(0);
  });

  it('have an envelope of one value each quarter millisecond from the film’s own time on', () => {
    const maker = new EnvelopeMaker(44_100);
    maker.add(new Float32Array(44_100), 0.75);
    const { loudness, start } = maker.finish();
    expect(start).toBe(0.75);
    expect(loudness.length).toBe(Math.round(1 / HOP));
  });
});

describe('breaths', () => {
  it('are heard before each hit of the take, and end as it lands', () => {
    const envelope = envelopeOf(heardBy(DEMO_TAKE, side!));
    const hits = findHits(envelope);
    const breaths = findBreaths(envelope, hits);
    expect(breaths).toHaveLength(hits.length);
    hits.forEach((hit, i) => {
      // A quarter second of hiss that fades out as the strike lands (takes.ts, sound.ts).
      expect(breaths[i]!.to).toBeLessThanOrEqual(hit.time);
      expect(hit.time - breaths[i]!.from).toBeLessThan(0.25);
      expect(breaths[i]!.to - breaths[i]!.from).toBeGreaterThan(0.08);
    });
  });

  it('are not heard in the even noise of a room', () => {
    expect(findBreaths(envelopeOf(noise(3, 0.01)), [])).toEqual([]);
  });
});

describe('two clocks', () => {
  it('are told apart by the sound of both films, to a millisecond where distances are known', () => {
    const known = offsetTrials(0.004, true, SEEDS);
    expect(known.refused).toEqual([]);
    expect(Math.max(...known.errors.map(Math.abs))).toBeLessThan(0.001);
    expect(known.covered).toBe(SEEDS.length);
  });

  it('are off by the way of the sound where distances are not known, and say so', () => {
    const unknown = offsetTrials(0.004, false, SEEDS);
    expect(Math.min(...unknown.errors.map(Math.abs))).toBeGreaterThan(0.002);
    expect(unknown.covered).toBe(SEEDS.length);
  });

  const hit = (time: number, loudness = 0.2) => ({ time, sigma: 0.0002, rise: 30, loudness });

  it('are not joined where nothing is heard, nothing fits, or everything fits', () => {
    expect(offsetBySound([], [hit(1)], null)).toBe('no hits');
    const [a, b] = [
      [1, 2.3, 4.1],
      [0.5, 3.4, 9.9],
    ].map((times) => times.map((time) => hit(time)));
    expect(offsetBySound(a!, b!, null)).toBe('no match');
    const even = [1, 2, 3, 4].map((time) => hit(time));
    expect(offsetBySound(even, [hit(10), hit(11), hit(12)], null)).toBe('ambiguous');
  });

  it('are told apart in an even rhythm by which hits were hard', () => {
    const loudness = [0.1, 0.4, 0.15, 0.3];
    const first = loudness.map((loud, i) => hit(1 + i, loud));
    const second = loudness.slice(1).map((loud, i) => hit(10 + i, loud / 2));
    const found = offsetBySound(first, second, [4, 4]);
    expect(found).toMatchObject({ pairs: 3, by: 'sound' });
    expect((found as { seconds: number }).seconds).toBeCloseTo(8, 6);
  });

  it('joined by eye are as sure as both marks together: √(σ₁² + σ₂²) (GUM 5.1.2)', () => {
    const found = offsetByEye({ time: 2, sigma: 0.003 }, { time: 1.5, sigma: 0.004 });
    expect(found).toMatchObject({ seconds: -0.5, by: 'eye' });
    expect(found.sigma).toBeCloseTo(0.005, 12);
  });
});

describe('strikes in a take', () => {
  it.each([30, 60, 120])('are all found by movement and sound at %i frames a second', (rate) => {
    const found = splitTrials(rate, true, SEEDS);
    expect(found).toMatchObject({ missed: 0, invented: 0, wrongPairs: 0 });
  });

  it('are found by movement alone, without a contact', () => {
    const found = splitTrials(60, false, SEEDS);
    expect(found).toMatchObject({ missed: 0, invented: 0 });
  });

  it('of the demo’s take are four, the last two in one combination', () => {
    const activity = activityOf(DEMO_TAKE, side!, 1);
    const distance = distanceTo(side!, hitsOf(DEMO_TAKE)[0]!);
    const found = findStrikes(activity, hitsHeard(DEMO_TAKE, side!), distance);
    expect(found.map((one) => one.combination)).toEqual([0, 1, 2, 2]);
    found.forEach(({ contact, from, to }, i) => {
      const truth = hitsOf(DEMO_TAKE)[i]!.time;
      expect(Math.abs(contact!.time - truth)).toBeLessThan(1.96 * contact!.sigma);
      expect(from).toBeLessThan(truth);
      expect(to).toBeGreaterThan(truth);
    });
    // Two of a combination share their border and no more.
    expect(found[3]!.from).toBeGreaterThanOrEqual(found[2]!.contact!.time);
  });

  it('are not a clap beside the picture, nor a still room', () => {
    const take = randomTake(3, 60);
    const activity = activityOf(take, take.films[0]!, 3);
    const still = { ...activity, amounts: activity.amounts.map(() => 0.001) };
    expect(findStrikes(still, [])).toEqual([]);
    const clap = { time: 0.05, sigma: 0.001, rise: 40, loudness: 0.9 };
    const quiet = {
      times: activity.times,
      amounts: activity.amounts.map((a, i) => (i < 200 ? 0 : a)),
    };
    const heard = findStrikes(quiet, [clap]).filter((one) => one.contact);
    expect(heard).toEqual([]);
  });

  it('are heard later than they are seen, by 2.9 ms a metre', () => {
    const { time, sigma } = seenTime({ time: 1, sigma: 0 }, 6.86);
    expect(time).toBeCloseTo(0.98, 9);
    expect(sigma).toBeLessThan(seenTime({ time: 1, sigma: 0 }, null).sigma);
  });

  it('reach the microphone of each camera at its own time', () => {
    const [a, b] = [trueHits(DEMO_TAKE, side!), trueHits(DEMO_TAKE, front!)];
    const apart = a[0]! - b[0]! - (front!.starts - side!.starts);
    const ways = [side!, front!].map((film) => distanceTo(film, hitsOf(DEMO_TAKE)[0]!));
    expect(apart).toBeCloseTo((ways[0]! - ways[1]!) / 343, 9);
  });
});
