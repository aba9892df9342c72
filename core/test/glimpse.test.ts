/** The mat's one sentence: heights at the hit against guard, and hits told as they are heard. */
import { describe, expect, it } from 'vitest';
import { DEMO_TAKE } from '@sinew/fighters/film/takes';
import { heardBy, SOUND_RATE } from '@sinew/fighters/film/sound';
import { EnvelopeMaker } from '../src/observe/sound/envelope';
import { Listening } from '../src/observe/sound/listening';
import { findHits } from '../src/observe/sound/onsets';
import { glimpse, sayGlimpse } from '../src/measure/measures/glimpse';
import { isAbsent } from '../src/foundation/reading/reading';
import type { PictureTrack, Points } from '../src/observe/track/track';

const [side] = DEMO_TAKE.films;

/** What a phone gives: the last `length` samples, over and over, in uneven steps. */
function heardLive(samples: Float32Array, length: number, steps: readonly number[]) {
  const listening = new Listening(SOUND_RATE);
  const found: number[] = [];
  for (let at = 0, step = 0; at < samples.length; step++) {
    at = Math.min(samples.length, at + steps[step % steps.length]!);
    const piece = new Float32Array(length);
    const heard = samples.subarray(Math.max(0, at - length), at);
    piece.set(heard, length - heard.length);
    found.push(...listening.hear(piece, at / SOUND_RATE).map(({ time }) => time));
  }
  return found;
}

describe('hits that are told as they are heard', () => {
  const samples = heardBy(DEMO_TAKE, side!);
  const maker = new EnvelopeMaker(SOUND_RATE);
  maker.add(samples, 0);
  const whole = findHits(maker.finish()).map(({ time }) => time);

  it.each([
    ['often', 0.68, [0.05]],
    ['as a phone does', 0.68, [0.12, 0.09, 0.16]],
    ['with a page that stalls', 0.68, [0.12, 0.5, 0.08, 0.58]],
  ])('are those of the whole recording, each once, heard %s', (_, seconds, steps) => {
    const samplesOf = (time: number) => Math.round(time * SOUND_RATE);
    const live = heardLive(samples, samplesOf(seconds), steps.map(samplesOf));
    expect(whole.length).toBeGreaterThan(3);
    expect(live).toHaveLength(whole.length);
    live.forEach((time, i) => expect(Math.abs(time - whole[i]!)).toBeLessThan(0.001));
  });

  it('are none where a device stalls and goes on', () => {
    const room = Float32Array.from({ length: 5 * SOUND_RATE }, (_, i) => 0.01 * Math.sin(i * i));
    for (let i = SOUND_RATE; i < room.length; i += SOUND_RATE)
      room.fill(0, i, i + 0.25 * SOUND_RATE);
    expect(heardLive(room, 30_000, [5000])).toEqual([]);
  });

  it('are none in a room in which nothing is hit', () => {
    const quiet = Float32Array.from(
      { length: 5 * SOUND_RATE },
      (_, i) => 0.05 * Math.sin(i / 40) + 0.01 * Math.sin(i * i),
    );
    expect(heardLive(quiet, 30_000, [5000])).toEqual([]);
  });
});

const RATE = 30;
const HIT = 1.2;
const times = Array.from({ length: 60 }, (_, i) => i / RATE);
/** A body 600 pixels tall; y of each landmark by time. */
const standing = (y: Record<string, (time: number) => number>): PictureTrack => ({
  space: '2d',
  source: 'measured-2d',
  placingSigma: 1,
  frameTimes: times,
  points: Object.fromEntries(
    Object.entries(y).map(([landmark, of]): [string, Points] => [
      landmark,
      {
        frames: times.map((_, i) => i),
        x: times.map(() => 300),
        y: times.map(of),
        sigma: times.map(() => 1),
      },
    ]),
  ),
});
const from =
  (before: number, after: number) =>
  (time: number): number =>
    time < HIT - 0.3 ? before : after;

describe('heights at the hit', () => {
  const track = standing({
    nose: from(100, 110),
    leftWrist: from(130, 240),
    leftHip: from(300, 330),
    rightHip: from(300, 350),
  });

  it('are told against guard, in centimetres of a body whose height is known', () => {
    const { guard, level } = glimpse(track, 600, 1.8, HIT, 'right');
    // 100 of 600 pixels, and 40.
    expect(guard).toMatchObject({ value: expect.closeTo(0.3, 6), unit: 'm' });
    expect(level).toMatchObject({ value: expect.closeTo(0.12, 6), unit: 'm' });
    expect(sayGlimpse('guard', guard)).toBe(
      'Other hand, against the nose: 30 ± 9 cm lower than in guard.',
    );
    expect(sayGlimpse('level', level)).toBe('Hips: 12 ± 4 cm lower than in guard.');
  });

  it('are shares of the height where that is not known', () => {
    const { level } = glimpse(track, 600, null, HIT, 'right');
    expect(sayGlimpse('level', level)).toBe('Hips: 7 ± 2 % of the height lower than in guard.');
  });

  it('are not called lower within what is not known', () => {
    const still = standing({ leftHip: from(300, 306), rightHip: from(300, 306) });
    const { level } = glimpse(still, 600, 1.8, HIT, 'right');
    expect(sayGlimpse('level', level)).toBe('Hips: as high as in guard, within 4 cm.');
  });

  it('do not follow one frame on which the tracker is lost', () => {
    const lost = Math.round(HIT * RATE);
    const jumps = standing({
      leftHip: (time) => (Math.abs(time - times[lost]!) < 1e-9 ? 20 : 300),
      rightHip: () => 300,
    });
    const { level } = glimpse(jumps, 600, 1.8, HIT, 'right');
    expect(level).toMatchObject({ value: 0 });
  });

  it('are absent where the hand is hidden, or the film begins too late', () => {
    const hidden = glimpse(standing({ nose: () => 100 }), 600, 1.8, HIT, 'right');
    expect(isAbsent(hidden.guard)).toBe(true);
    expect(sayGlimpse('guard', hidden.guard)).toMatch(/not seen well enough/);
    const shaking = standing({
      nose: () => 100,
      leftWrist: (time) => 130 + 150 * Math.sin(97 * time),
      leftHip: () => 300,
      rightHip: () => 300,
    });
    expect(isAbsent(glimpse(shaking, 600, 1.8, HIT, 'right').guard)).toBe(true);
    expect(isAbsent(glimpse(track, 600, 1.8, 0.1, 'right').level)).toBe(true);
    expect(isAbsent(glimpse(track, 0, 1.8, HIT, 'right').level)).toBe(true);
    expect(isAbsent(glimpse(track, 600, 1.8, HIT, null).guard)).toBe(true);
  });
});
