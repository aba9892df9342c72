/** A review: what it shows when, what it says, and the page that is sent home with it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { writeSubtitles } from '@sinew/core/format/vtt';
import { layoutOf, wrapped } from '@/video/review/drawReview';
import { frameAt, RATE, reviewOf, type ReviewOrder } from '@/video/review/plan';

const RATE_OF_FILM = 240;
const order = (change: Partial<ReviewOrder> = {}): ReviewOrder => ({
  times: Array.from({ length: 480 }, (_, i) => i / RATE_OF_FILM),
  strike: [60, 240],
  until: 168,
  shows: 115,
  technique: 'Cross',
  cue: 'Hips first.',
  evidence: 'The trunk starts within 3 ms of the hips.',
  work: 'Slow three-count: 3 × 8',
  ...change,
});
const played = (of: ReviewOrder) => {
  const review = reviewOf(of);
  const frames = Array.from({ length: Math.round(review.length * RATE) }, (_, i) => {
    const at = i / RATE;
    return {
      at,
      part: review.pieces.find(({ to }) => at < to)!.part,
      frame: frameAt(of, review, at),
    };
  });
  return { review, frames, of: (part: string) => frames.filter((one) => one.part === part) };
};

describe('a review', () => {
  it('is the strike at true speed, then slowly to contact, then what shows it, then the work', () => {
    const { review, of } = played(order());
    expect(review.pieces.map(({ part }) => part)).toEqual(['true', 'slow', 'stands', 'work']);
    const whole = of('true').map(({ frame }) => frame);
    expect([whole[0], whole.at(-1)]).toEqual([60, expect.toBeOneOf([232, 236, 240])]);
    // At true speed a frame of the review is eight of a film of 240 a second.
    const moving = whole.filter((frame, i) => i > 0 && frame > whole[i - 1]!);
    for (let i = 1; i < moving.length; i++) {
      expect(Math.abs(moving[i]! - moving[i - 1]! - 8)).toBeLessThanOrEqual(1);
    }
    const slow = of('slow').map(({ frame }) => frame);
    expect([slow[0], slow.at(-1)]).toEqual([60, expect.toBeOneOf([167, 168])]);
    expect(review.pace).toBe(1 / 8);
    expect(new Set(of('stands').map(({ frame }) => frame))).toEqual(new Set([115]));
  });

  it('is ten to thirty seconds for strikes as they are, and never longer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 479 }),
        fc.integer({ min: 0, max: 479 }),
        fc.integer({ min: 0, max: 479 }),
        fc.integer({ min: 0, max: 479 }),
        (from, to, until, shows) => {
          const own = order({ strike: [from, to], until, shows });
          const { review, frames } = played(own);
          expect(review.length).toBeLessThan(30);
          for (const { frame } of frames) {
            expect(frame).toBeGreaterThanOrEqual(0);
            expect(frame).toBeLessThan(own.times.length);
          }
        },
      ),
    );
    expect(reviewOf(order()).length).toBeGreaterThan(10);
  });

  it('runs time forward in every part, also where frames came unevenly', () => {
    let time = 0;
    const times = Array.from({ length: 300 }, (_, i) => (time += i % 7 === 0 ? 0.011 : 0.003));
    const { of } = played(order({ times, strike: [40, 220], until: 150 }));
    for (const part of ['true', 'slow']) {
      const frames = of(part).map(({ frame }) => frame);
      expect(frames).toEqual([...frames].sort((a, b) => a - b));
    }
  });

  it('of a long stretch is no longer for it, and goes slowly as far as there is time', () => {
    const times = Array.from({ length: 2400 }, (_, i) => i / RATE_OF_FILM);
    const { review } = played(order({ times, strike: [0, 2399], until: 1800, shows: 1800 }));
    expect(review.length).toBeLessThan(30);
    expect(review.pace).toBeGreaterThan(1 / 8);
  });

  it('ends with the cue where there is no work', () => {
    expect(reviewOf(order({ work: '' })).pieces.at(-1)!.part).toBe('stands');
  });

  it('says what it shows, as subtitles', () => {
    const { pieces } = reviewOf(order());
    const [head, ...blocks] = writeSubtitles(pieces).trim().split('\n\n');
    expect(head).toMatch(/^WEBVTT/);
    expect(blocks.map((block) => block.split('\n').slice(1).join('\n'))).toEqual([
      'Cross, at true speed',
      'Cross, at an eighth of true speed',
      'Hips first.\nThe trunk starts within 3 ms of the hips.',
      'Slow three-count: 3 × 8',
    ]);
    const times = blocks.map((block) => block.split('\n')[0]!.split(' --> '));
    expect(times[0]![0]).toBe('00:00:00.000');
    times.slice(1).forEach(([begins], i) => expect(begins).toBe(times[i]![1]));
  });
});

describe('its picture', () => {
  it('keeps the film’s shape, is even, and leaves paper under it for the words', () => {
    for (const [width, height] of [
      [1280, 720],
      [1080, 1920],
      [3840, 2160],
      [641, 481],
    ] as const) {
      const layout = layoutOf({ width, height });
      expect([layout.width % 2, layout.height % 2, layout.film % 2]).toEqual([0, 0, 0]);
      expect(layout.width / layout.film).toBeCloseTo(width / height, 1);
      expect(Math.max(layout.width, layout.film)).toBeLessThanOrEqual(1282);
      expect(layout.height - layout.film).toBeGreaterThan(60);
    }
  });

  it('breaks words into lines that fit, and keeps a dose together', () => {
    const context = { measureText: (text: string) => ({ width: 10 * text.length }) };
    expect(wrapped(context, 'Slow three-count: 3 × 8 each', 180)).toEqual([
      'Slow three-count:',
      '3\u00a0×\u00a08 each',
    ]);
    expect(wrapped(context, 'unbreakablewordthatislong', 50)).toHaveLength(1);
    expect(wrapped(context, '', 50)).toEqual([]);
  });
});
