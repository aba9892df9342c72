/** Turn of hips and ribs, read off worn bands in ray-cast pictures whose truth is known. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { USUALLY_BANDED, type BandedFilm } from '@sinew/fighters/film/banded';
import { randomBanded, readBanded, type Miss, type Told } from '@sinew/fighters/trials/banded';
import { BANDS, codeProblem, PRINTED } from '../src/observe/band/band';
import { torsoOf } from '../src/observe/band/torso';

const DEGREE = Math.PI / 180;
const HIPS = { code: PRINTED.hips, girth: 0.98, flatness: 0.72, boxiness: 2.2 };
const RIBS = { code: PRINTED.ribs, girth: 0.92, flatness: 0.78, boxiness: 2.3 };

/** Read as the app would: girths and focal length a little off. */
const readFilm = (over: Partial<BandedFilm>, told: Told = {}) =>
  readBanded(
    { ...USUALLY_BANDED, recipe: clean('cross'), hips: HIPS, ribs: RIBS, ...over },
    { focal: 1.03, girth: 0.004, ...told },
  );

/** Half of all, and nineteen in twenty, are less than this. */
function sizes(misses: readonly Miss[]) {
  const sorted = misses.map(({ miss }) => Math.abs(miss)).sort((a, b) => a - b);
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return { middle: at(0.5), most: at(0.95) };
}

describe('a band round hips and ribs', () => {
  const behind = readFilm({});

  it('tells the turn in every frame from behind, where no arm is between', () => {
    for (const band of BANDS) {
      const misses = behind.misses[band];
      expect(misses.length).toBeGreaterThan(0.95 * behind.frames.length);
      expect(sizes(misses).middle).toBeLessThan(3 * DEGREE);
      expect(sizes(misses).most).toBeLessThan(6 * DEGREE);
      const covered = misses.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma);
      expect(covered.length).toBeGreaterThan(0.9 * misses.length);
    }
  });

  it('tells when hips and trunk start', () => {
    const { hips, trunk } = behind.starts;
    const { times } = truthOfStrike(behind.film.recipe);
    expect(Math.abs(hips!.time - times.hips!)).toBeLessThan(1.96 * hips!.sigma);
    expect(Math.abs(trunk!.time - times.trunk!)).toBeLessThan(1.96 * trunk!.sigma);
    // Its ± decides that a lead of 54 ms is more than 20.
    const lead = trunk!.time - hips!.time;
    const sigma = Math.hypot(hips!.sigma, trunk!.sigma);
    expect(Math.abs(lead - (times.trunk! - times.hips!))).toBeLessThan(1.96 * sigma);
    expect(lead - 1.645 * sigma).toBeGreaterThan(0.02);
  });

  it('reads a southpaw from a rear corner, seam in front, by the same number', () => {
    const corner = readFilm({
      recipe: { ...clean('cross'), stance: 'southpaw' },
      azimuth: 135 * DEGREE,
      seam: 'front',
      seed: 2,
    });
    expect(corner.misses.hips.length).toBeGreaterThan(0.8 * corner.frames.length);
    // An arm hides the ribs in many frames; what is read is right.
    for (const band of BANDS) expect(sizes(corner.misses[band]).most).toBeLessThan(8 * DEGREE);
  });

  it('takes a guard to be turned away as usual where nobody says where the camera stands', () => {
    const { misses, read } = readFilm({ ribs: null }, { azimuth: null });
    const [first] = read.hips!;
    expect('yaw' in first! && first.yaw).toBeCloseTo(-Math.PI / 4, 1);
    // What is in doubt is the same for all frames.
    const all = misses.hips.map(({ miss }) => miss);
    expect(Math.max(...all) - Math.min(...all)).toBeLessThan(12 * DEGREE);
  });

  it('says nothing of a band that is not there, or is another', () => {
    const bare = readFilm({ hips: null });
    expect(bare.misses.hips.length).toBeLessThan(0.05 * bare.frames.length);
    const swapped = readFilm({}, { codes: { hips: PRINTED.ribs, ribs: PRINTED.hips } });
    expect(swapped.misses.hips.length).toBeLessThan(0.05 * swapped.frames.length);
  });
});

describe('strips of tape that nobody knows the order of', () => {
  const films = [1, 2, 3, 4, 5, 6].map((seed) =>
    randomBanded(clean(seed % 2 ? 'cross' : 'rear-hook'), {
      azimuth: Math.PI,
      rate: 120,
      seed,
      isTape: true,
    }),
  );

  it('tell when hips and trunk start, and which is first', () => {
    const leads = films.flatMap(({ starts: { hips, trunk }, film }) => {
      const { times } = truthOfStrike(film.recipe);
      const misses = [
        hips && { miss: hips.time - times.hips!, sigma: hips.sigma },
        trunk && { miss: trunk.time - times.trunk!, sigma: trunk.sigma },
      ].filter((one) => one !== null && one !== undefined);
      for (const { miss, sigma } of misses) expect(Math.abs(miss)).toBeLessThan(2.6 * sigma);
      return misses.length === 2
        ? [
            {
              miss: misses[1]!.miss - misses[0]!.miss,
              sigma: Math.hypot(...misses.map((one) => one.sigma)),
            },
          ]
        : [];
    });
    expect(leads.length).toBeGreaterThanOrEqual(4);
    for (const { miss, sigma } of leads) expect(Math.abs(miss)).toBeLessThan(1.96 * sigma);
    expect(sizes(leads).middle).toBeLessThan(0.015);
  });

  it('tell the turn since guard within its ±, which grows with it', () => {
    for (const band of BANDS) {
      const misses = films.flatMap((one) => one.misses[band]);
      const covered = misses.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma);
      expect(covered.length).toBeGreaterThan(0.9 * misses.length);
    }
    const known = films[2]!.read.hips!.flatMap((one) => ('yaw' in one ? [one] : []));
    expect(known[0]!.yaw).toBeCloseTo(-Math.PI / 4, 1);
    const farthest = known.reduce((a, b) => (b.yaw > a.yaw ? b : a));
    expect(farthest.lasting).toBeGreaterThan(1.3 * known[0]!.lasting);
  });

  it('say nothing where no tape is, but a shirt', () => {
    const bare = { hips: { ...HIPS, code: '' }, ribs: { ...RIBS, code: '' } };
    const { misses, frames, read } = readFilm(bare, {
      codes: { hips: null, ribs: null },
      azimuth: null,
    });
    for (const band of BANDS) {
      expect(misses[band].length).toBeLessThan(0.05 * frames.length);
      // Tape is not printed, and cannot be another one or upside down.
      for (const one of read[band]!) if ('why' in one) expect(one.why).not.toMatch(/upside down/);
    }
  });
});

describe('what is printed', () => {
  it('has no eight bars twice in either band or both, nor more than three alike together', () => {
    const seen = new Set<string>();
    for (const code of Object.values(PRINTED)) {
      expect(codeProblem(code)).toBeNull();
      expect(code).not.toMatch(/0000|1111/);
      for (let i = 0; i + 8 <= code.length; i++) {
        const bars = code.slice(i, i + 8);
        expect(seen.has(bars), bars).toBe(false);
        seen.add(bars);
      }
    }
  });

  it('lies around an ellipse as long as the band is', () => {
    // Ramanujan's second formula, in check against the steps that the torso is made of.
    const torso = torsoOf({ girth: 1, levels: new Float32Array(500) }, 0.7, 'back');
    const [a, b] = [Math.max(...torso.sideways), Math.max(...torso.forward)];
    const h = ((a - b) / (a + b)) ** 2;
    const perimeter = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    expect(perimeter).toBeCloseTo(1, 4);
  });
});
