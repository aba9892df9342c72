/** What a film is worth: light, blur, shake, movement, rate, and the verdicts drawn from them. */
import { describe, expect, it } from 'vitest';
import { edgeWidth } from '../src/observe/footage/blur';
import { checkFootage, type CheckLine, type Footage } from '../src/observe/footage/check';
import { greyFrom, levelAt, lightOf, shareWithin, type Grey } from '../src/observe/footage/grey';
import { MovementMap, repeatedFrames } from '../src/observe/footage/movement';
import { rateOf } from '../src/observe/footage/rate';
import { shakeOf, shiftBetween } from '../src/observe/footage/shake';
import { questionById } from '../src/foundation/technique/questions';
import { seeded } from '../src/foundation/uncertainty/random';
import opencv from './fixtures/capture.json';

const picture = (width: number, height: number, level: (x: number, y: number) => number): Grey => ({
  width,
  height,
  data: Uint8Array.from({ length: width * height }, (_, i) =>
    level(i % width, Math.floor(i / width)),
  ),
});

describe('grey pictures', () => {
  it('weigh colours as OpenCV does (ITU-R BT.601; fixture: cvtColor)', () => {
    const { rgb, grey } = opencv.luma;
    const rgba = rgb.flatMap((colour) => [...colour, 255]);
    const own = greyFrom(rgba, rgb.length, 1).data;
    grey.forEach((level, i) => expect(Math.abs(own[i]! - level)).toBeLessThanOrEqual(1));
  });

  it('tell their levels and shares', () => {
    const ramp = picture(256, 1, (x) => x);
    expect([0.05, 0.5, 0.95].map((share) => levelAt(ramp, share))).toEqual([12, 127, 243]);
    expect(shareWithin(ramp, 0, 63)).toBe(0.25);
    expect(lightOf([ramp]).contrast).toBe(231);
  });
});

describe('the width of edges', () => {
  // cv2.blur spreads a step evenly over its window: a ramp of that many pixels.
  it.each([3, 7, 15])(
    'of a step blurred over %i pixels is about that (fixture: OpenCV blur)',
    (n) => {
      const rows = opencv.blur[String(n) as '3' | '7' | '15'];
      const blurred = picture(80, 40, (x, y) => rows[y]![x]!);
      expect(Math.abs(edgeWidth(blurred)! - n)).toBeLessThanOrEqual(1);
    },
  );

  it('is not told of a blank wall', () => {
    expect(edgeWidth(picture(80, 40, () => 120))).toBeNull();
  });
});

/** A room with furniture everywhere, seen from a place. */
function room(dx: number, dy: number, isPersonAt = -1): Grey {
  const random = seeded(4);
  const boxes = Array.from({ length: 160 }, () => ({
    x: 340 * random() - 10,
    y: 200 * random() - 10,
    w: 6 + 26 * random(),
    h: 6 + 26 * random(),
    level: 60 + 150 * random(),
  }));
  return picture(320, 180, (px, py) => {
    if (isPersonAt >= 0 && Math.abs(px - isPersonAt) < 22 && py > 40 && py < 170) return 20;
    const [x, y] = [px + dx, py + dy];
    const box = boxes.find((b) => x >= b.x && x < b.x + b.w && y >= b.y && y < b.y + b.h);
    return box ? box.level : 110;
  });
}

describe('camera shake', () => {
  it.each([
    [0, 0],
    [3, -2],
    [-5, 4],
  ])('by %i and %i pixels is found, whoever walks in front', (dx, dy) => {
    const shift = shiftBetween(room(0, 0, 120), room(dx, dy, 180))!;
    expect(shift.x).toBeCloseTo(-dx, 0);
    expect(shift.y).toBeCloseTo(-dy, 0);
  });

  it('is not told of a blank room, nor beyond reach', () => {
    const blank = picture(320, 180, () => 130);
    expect(shiftBetween(blank, blank)).toBeNull();
    expect(shiftBetween(room(0, 0), room(7, 0))).toBeNull();
  });

  it('is a wander about a drift', () => {
    const drifting = Array.from({ length: 11 }, (_, i) => ({ x: i, y: 0 }));
    expect(shakeOf(drifting).jitter).toBeCloseTo(0, 9);
    expect(shakeOf(drifting).drift).toBe(10);
    const shaking = drifting.map(({ x }, i) => ({ x, y: i % 2 === 0 ? 1 : -1 }));
    expect(shakeOf(shaking).jitter).toBeCloseTo(1, 1);
  });
});

describe('movement', () => {
  it('is found where it is, and how much', () => {
    const map = new MovementMap(40, 20);
    const at = (x: number) =>
      picture(40, 20, (px, py) => (px === x && py > 4 && py < 10 ? 250 : 50));
    expect(map.add(at(5))).toBeNull();
    for (const x of [6, 5, 6, 5, 6]) expect(map.add(at(x))!.amount).toBeGreaterThan(0);
    expect(map.add(at(6))).toEqual({ amount: 0, isSame: true });
    const box = map.box();
    // Two columns of five rows.
    expect(box).toEqual({ left: 5 / 40, right: 7 / 40, top: 5 / 20, bottom: 10 / 20 });
    expect([map.movedAt(0.14, 0.4), map.movedAt(0.9, 0.4)]).toEqual([true, false]);
  });

  it('that stops for one frame in its midst is a repeated frame; a still room is none', () => {
    const [moves, repeats] = [
      { amount: 0.1, isSame: false },
      { amount: 0, isSame: true },
    ];
    expect(repeatedFrames([moves, repeats, moves, moves, repeats, moves])).toBe(2);
    expect(repeatedFrames([repeats, repeats, repeats])).toBe(0);
  });
});

describe('the rate of a film', () => {
  const even = Array.from({ length: 61 }, (_, i) => i / 60);

  it('is its middle spacing, with what is missing counted', () => {
    expect(rateOf(even)).toMatchObject({ dropped: 0, uneven: 0 });
    expect(rateOf(even).perSecond).toBeCloseTo(60, 9);
    const lost = even.filter((_, i) => i !== 20 && i !== 40 && i !== 41);
    expect(rateOf(lost).dropped).toBe(3);
  });

  it('is 0 where there are no two frames', () => {
    expect(rateOf([]).perSecond).toBe(0);
    expect(rateOf([0.3]).perSecond).toBe(0);
  });
});

describe('the film check', () => {
  const fine: Footage = {
    width: 1280,
    height: 720,
    rate: { perSecond: 240, dropped: 0, uneven: 0 },
    repeated: 0,
    frames: 400,
    light: { middle: 120, contrast: 140, black: 0.02, white: 0.01 },
    edges: { moving: 5, still: 3 },
    shake: { jitter: 0.3, drift: 0.8 },
    moved: { left: 0.2, right: 0.8, top: 0.1, bottom: 0.95 },
    hasSound: true,
  };
  const line = (change: Partial<Footage>, about: CheckLine['about'], question = 'order') =>
    checkFootage({ ...fine, ...change }, questionById(question)).find(
      (one) => one.about === about,
    )!;

  it('has nothing to say against a good film', () => {
    const lines = checkFootage(fine, questionById('order'));
    expect(lines.map((one) => one.verdict)).toEqual(lines.map(() => 'good'));
    expect(lines.every((one) => one.so === '')).toBe(true);
  });

  // A lead of about 30 ms (published hip-to-trunk delays) must span three frames: 100 a second.
  it('says that 30 frames a second cannot show a lead of 30 ms', () => {
    const slow = line({ rate: { perSecond: 30, dropped: 0, uneven: 0 } }, 'rate');
    expect(slow.verdict).toBe('poor');
    expect(slow.says).toBe(
      '30 frames a second, one each 33 ms; “Do the hips start before the trunk?” needs 100 or more.',
    );
    expect(line({ rate: { perSecond: 60, dropped: 0, uneven: 0 } }, 'rate').verdict).toBe(
      'careful',
    );
    expect(line({ rate: { perSecond: 30, dropped: 0, uneven: 0 } }, 'rate', 'levels').verdict).toBe(
      'good',
    );
  });

  it.each<[string, Partial<Footage>, CheckLine['about'], CheckLine['verdict'], RegExp]>([
    ['dark', { light: { ...fine.light, middle: 20 } }, 'light', 'poor', /^Dark/],
    ['washed out', { light: { ...fine.light, white: 0.4 } }, 'light', 'poor', /white/],
    ['flat', { light: { ...fine.light, contrast: 30 } }, 'light', 'careful', /^Flat/],
    ['smeared', { edges: { moving: 30, still: 3 } }, 'blur', 'poor', /27 pixels/],
    ['without edges', { edges: { moving: null, still: 3 } }, 'blur', 'unknown', /cannot be told/],
    ['cut off', { moved: { ...fine.moved!, bottom: 1 } }, 'frame', 'poor', /at the bottom/],
    ['small', { moved: { ...fine.moved!, top: 0.7 } }, 'frame', 'careful', /fills 25 %/],
    ['still', { moved: null }, 'frame', 'unknown', /Nothing moves/],
    ['shaking', { shake: { jitter: 6, drift: 9 } }, 'shake', 'poor', /by 9 pixels/],
    ['plain', { shake: null }, 'shake', 'unknown', /too plain/],
    ['mute', { hasSound: false }, 'sound', 'careful', /no sound/],
    ['gappy', { repeated: 60 }, 'frames', 'poor', /60 only repeat/],
  ])('says what is wrong with a film that is %s', (_, change, about, verdict, says) => {
    const found = line(change, about);
    expect(found.verdict).toBe(verdict);
    expect(found.says).toMatch(says);
  });
});
