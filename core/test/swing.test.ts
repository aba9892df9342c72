/** A bag that swings in a made-up film: hook, bag and blow are known, and so is the impulse. */
import { describe, expect, it } from 'vitest';
import { bagImpulse, meanForce, type Bag } from '../src/measure/measures/beyond';
import { isAbsent, type Reading } from '../src/foundation/reading/reading';
import { cut, find, type Grey } from '../src/train/bag/patch';
import { swingOf } from '../src/train/bag/bag';
import { normals, seeded } from '../src/foundation/uncertainty/random';

const WIDTH = 320;
const HEIGHT = 240;
const RATE = 60;
const HOOK = { x: 160, y: -60 };
/** Pixels from the hook to the painted mark on the bag. */
const MARK = 210;
const G = 9.81;

/** A bag as a rigid body: angle over time after a blow at 0.5 s, solved in small steps (RK4). */
function swung(impulse: number, bag: Bag, below: number): (time: number) => number {
  const { mass, length, radius, chain } = {
    ...bag,
    mass: bag.mass.value,
    length: bag.length.value,
  };
  const centre = chain + length / 2;
  const inertia = mass * (length ** 2 / 12 + radius ** 2 / 4) + mass * centre ** 2;
  const pull = (mass * G * centre) / inertia;
  const step = 1e-4;
  const angles: number[] = [];
  let [angle, rate] = [0, (impulse * below) / inertia];
  for (let t = 0; t < 4; t += step) {
    angles.push(angle);
    const f = (a: number) => -pull * Math.sin(a);
    const k1 = [rate, f(angle)] as const;
    const k2 = [rate + (step / 2) * k1[1], f(angle + (step / 2) * k1[0])] as const;
    const k3 = [rate + (step / 2) * k2[1], f(angle + (step / 2) * k2[0])] as const;
    const k4 = [rate + step * k3[1], f(angle + step * k3[0])] as const;
    angle += (step / 6) * (k1[0] + 2 * k2[0] + 2 * k3[0] + k4[0]);
    rate += (step / 6) * (k1[1] + 2 * k2[1] + 2 * k3[1] + k4[1]);
  }
  return (time) => (time < 0.5 ? 0 : angles[Math.round((time - 0.5) / step)]!);
}

/** A frame of the film: floor and wall, and a bag with a painted pattern that turns with it. */
function frameAt(angle: number, noise: () => number): Grey {
  const levels = new Float64Array(WIDTH * HEIGHT);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const [dx, dy] = [x - HOOK.x, y - HOOK.y];
      const across = dx * c - dy * s;
      const down = dx * s + dy * c;
      const isBag = Math.abs(across) < 28 && down > 90 && down < 290;
      const painted = 120 + 60 * Math.sin(across / 4) + 50 * Math.cos((down - MARK) / 5);
      levels[y * WIDTH + x] = (isBag ? painted : 200 + 20 * Math.sin(x / 30)) + 4 * noise();
    }
  }
  return { width: WIDTH, height: HEIGHT, levels };
}

function followed(angleAt: (time: number) => number, seed: number) {
  const noise = normals(seeded(seed));
  const frames = Array.from({ length: 2.4 * RATE }, (_, i) => i);
  const first = frameAt(0, noise);
  let place = { x: HOOK.x, y: HOOK.y + MARK };
  const patch = cut(first, place, 25);
  return frames.map((frame) => {
    const time = frame / RATE;
    const found = find(frameAt(angleAt(time), noise), patch, place, 12);
    place = found;
    return { x: found.x, y: found.y, time, frame };
  });
}

const sure = (value: number) => ({ value, sigma: 0 });
const BAG: Bag = { mass: { value: 35, sigma: 0.5 }, length: sure(1.1), radius: 0.18, chain: 0.5 };

describe('a bag in a film', () => {
  it.each([12, 25, 40])('gives back the impulse of a blow of %d N·s within its ±', (impulse) => {
    const below = 1.1;
    const swing = swingOf(HOOK, followed(swung(impulse, BAG, below), impulse)) as Reading;
    const found = bagImpulse(BAG, swing, sure(below)) as Reading;
    expect(Math.abs(found.value - impulse)).toBeLessThan(1.96 * found.sigma);
    expect(found.sigma / impulse).toBeLessThan(0.05);
    const force = meanForce(found, { value: 0.02, sigma: 0.002 }) as Reading;
    expect(force.value).toBeCloseTo(found.value / 0.02, 6);
    expect(force.sigma / force.value).toBeGreaterThan(0.099);
  });

  it('that hangs still, or is filmed too shortly, gives no swing', () => {
    const still = Array.from({ length: 40 }, (_, i) => ({
      x: 160,
      y: 150,
      time: i / RATE,
      frame: i,
    }));
    expect(isAbsent(swingOf(HOOK, still))).toBe(true);
    expect(isAbsent(swingOf(HOOK, still.slice(0, 5)))).toBe(true);
    const rising = still.map((p, i) => ({ ...p, x: 160 + i }));
    expect(swingOf(HOOK, rising)).toMatchObject({
      absent: 'The bag does not swing back in this film.',
    });
  });
});

describe('a patch', () => {
  it('is found to a tenth of a pixel where it was moved by part of one', () => {
    const wave = (x: number, y: number) => 100 + 40 * Math.sin(x / 3) * Math.cos(y / 4);
    const picture = (dx: number, dy: number): Grey => ({
      width: 80,
      height: 60,
      levels: Float64Array.from({ length: 4800 }, (_, i) =>
        wave((i % 80) - dx, Math.floor(i / 80) - dy),
      ),
    });
    const patch = cut(picture(0, 0), { x: 40.5, y: 30.5 }, 15);
    const home = find(picture(0, 0), patch, { x: 40.5, y: 30.5 }, 5);
    const moved = find(picture(2.3, -1.6), patch, { x: 40.5, y: 30.5 }, 5);
    expect(moved.x - home.x).toBeCloseTo(2.3, 1);
    expect(moved.y - home.y).toBeCloseTo(-1.6, 1);
    expect(home.likeness).toBeCloseTo(1, 9);
  });

  it('that does not fit into the picture is refused', () => {
    const grey: Grey = { width: 20, height: 20, levels: new Float64Array(400) };
    expect(() => cut(grey, { x: 3, y: 10 }, 11)).toThrow(/does not fit/);
  });
});
