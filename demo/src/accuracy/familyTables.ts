/** Whether ± keeps its word on bodies of several kinds, with the noise that trackers and marker systems have. */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { ELBOWS, HOOKS, KICKS, STRAIGHTS } from '@sinew/fighters/fighter/techniqueLists';
import type { Flaws } from '@sinew/fighters/fighter/track';
import { FAMILIES, REAL, type Family } from '@sinew/fighters/trials/families';
import { trialsOf, type Trial } from '@sinew/fighters/trials/measured';
import { quantile, table } from './table';

const TECHNIQUES = Object.keys(FORMS) as TechniqueId[];
const SEEDS = [1, 2];
const HANGING = { hangs: 0.005, jumps: 0, jump: 0, gaps: 0 };

interface Noise {
  readonly name: string;
  readonly rate: number;
  readonly flaws?: Flaws;
}
const NOISES: readonly Noise[] = [
  { name: 'independent', rate: 240 },
  { name: 'hangs together for 2 ms', rate: 240, flaws: { ...HANGING, hangs: 0.002 } },
  { name: 'for 5 ms', rate: 240, flaws: HANGING },
  { name: 'for 10 ms', rate: 240, flaws: { ...HANGING, hangs: 0.01 } },
  { name: 'for 5 ms, with jumps and gaps', rate: 240, flaws: REAL },
  { name: 'the same', rate: 120, flaws: REAL },
  { name: 'the same', rate: 60, flaws: REAL },
];

const GROUPS: readonly (readonly [string, readonly TechniqueId[]])[] = [
  ['straights', STRAIGHTS],
  ['hooks', HOOKS],
  ['uppercuts', ['lead-uppercut', 'rear-uppercut']],
  ['elbows', ELBOWS],
  ['kicks', KICKS],
];

const COLUMNS = [
  ['load', ['load'], 1000, 'ms'],
  ['hips', ['hips'], 1000, 'ms'],
  ['trunk (thigh)', ['trunk'], 1000, 'ms'],
  ['arm (shank)', ['arm'], 1000, 'ms'],
  ['lead', ['lead'], 1000, 'ms'],
  ['separation', ['separation.max', 'separation.growth'], 180 / Math.PI, '°'],
  ['sink', ['sink'], 100, 'cm'],
  ['speed at contact', ['speed.contact'], null, '%'],
  ['speed at most', ['speed.peak'], null, '%'],
  ['end', ['end'], 1000, 'ms'],
  ['home', ['home'], 1000, 'ms'],
] as const;

const heads = COLUMNS.map(([name, , , unit]) => `${name}, ${unit}`);
const own = (trials: readonly Trial[], whats: readonly string[]) =>
  trials.filter(({ what }) => whats.includes(what));
const share = (trials: readonly Trial[]) =>
  trials.filter(({ isCovered }) => isCovered).length / trials.length;

/** "2.1 / 7.9 (96)": median and 90th percentile of the error's size, and the share within ±. */
function cell(trials: readonly Trial[], [, whats, by]: (typeof COLUMNS)[number]): string {
  const found = own(trials, whats);
  if (found.length === 0) return '';
  const sizes = found.map(({ error, truth }) =>
    Math.abs(by === null ? (100 * error) / truth : by * error),
  );
  const number = (value: number) => value.toFixed(value < 10 ? 1 : 0);
  return `${number(quantile(sizes, 0.5))} / ${number(quantile(sizes, 0.9))} (${(100 * share(found)).toFixed(0)})`;
}

/** Wilson's interval of a share, 95 %. Source: Wilson, J. Am. Stat. Assoc. 22 (1927). */
export function wilson(inside: number, of: number): readonly [number, number] {
  const z = 1.96;
  const middle = (inside + (z * z) / 2) / (of + z * z);
  const half = (z / (of + z * z)) * Math.sqrt((inside * (of - inside)) / of + (z * z) / 4);
  return [middle - half, middle + half];
}

function covered(trials: readonly Trial[], whats: readonly string[]): string {
  const found = own(trials, whats);
  if (found.length === 0) return '';
  const inside = found.filter(({ isCovered }) => isCovered).length;
  const [low, high] = wilson(inside, found.length).map((one) => (100 * one).toFixed(0));
  return `${((100 * inside) / found.length).toFixed(0)} (${low}–${high}, ${found.length})`;
}

const NOMINAL = [0.5, 0.68, 0.8, 0.9, 0.95, 0.99];
/** Two-sided normal quantiles of those shares (SciPy: norm.ppf((1 + p) / 2)). */
const SIGMAS = [0.67449, 0.99446, 1.28155, 1.64485, 1.95996, 2.57583];

const actual = (trials: readonly Trial[]) =>
  SIGMAS.map(
    (sigmas) =>
      trials.filter(({ error, sigma }) => Math.abs(error) <= sigmas * sigma).length / trials.length,
  );

/** Share within so many σ against what that share should be: on the line is honest, above it too wide. */
function plot(all: readonly { readonly family: Family; readonly shares: readonly number[] }[]) {
  const [size, edge] = [360, 44];
  const at = (value: number) => edge + value * (size - 2 * edge);
  const up = (value: number) => size - at(value);
  const dashes = ['', '7 4', '2 3'];
  const lines = all.map(({ family, shares }, i) => {
    const points = shares.map((one, k) => `${at(NOMINAL[k]!).toFixed(1)},${up(one).toFixed(1)}`);
    return (
      `<polyline points="${points.join(' ')}" fill="none" stroke="#1d1b16" stroke-width="1.6" stroke-dasharray="${dashes[i]}"/>` +
      `<text x="${at(0.06)}" y="${up(0.94) + 16 * i}" font-size="12">${['—', '– –', '· ·'][i]} ${family.id}</text>`
    );
  });
  const marks = [0, 0.5, 1].map(
    (one) =>
      `<text x="${at(one)}" y="${size - 24}" font-size="11" text-anchor="middle">${100 * one}</text>` +
      `<text x="${edge - 8}" y="${up(one) + 4}" font-size="11" text-anchor="end">${100 * one}</text>`,
  );
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" font-family="sans-serif" fill="#1d1b16">` +
    `<rect width="${size}" height="${size}" fill="#fff"/>` +
    `<path d="M${at(0)},${up(0)}L${at(1)},${up(1)}" stroke="#b9b2a3"/>` +
    `<path d="M${at(0)},${up(1)}V${up(0)}H${at(1)}" fill="none" stroke="#1d1b16"/>` +
    `${lines.join('')}${marks.join('')}` +
    `<text x="${size / 2}" y="${size - 6}" font-size="12" text-anchor="middle">promised, %</text>` +
    `<text x="12" y="${size / 2}" font-size="12" text-anchor="middle" transform="rotate(-90 12 ${size / 2})">kept, %</text></svg>\n`
  );
}

export function familySection(): string {
  const rows: string[][] = [];
  const real: { readonly family: Family; readonly trials: readonly Trial[] }[] = [];
  for (const family of FAMILIES) {
    for (const { name, rate, flaws } of NOISES) {
      const setting = { rate, noise: 0.002, isContactKnown: true, family, flaws };
      const { trials } = trialsOf(TECHNIQUES, setting, SEEDS);
      console.error(`${family.id}, ${rate} a second, ${name}: ${trials.length} numbers`);
      rows.push([family.id, String(rate), name, ...COLUMNS.map((column) => cell(trials, column))]);
      if (rate === 240 && flaws === REAL) real.push({ family, trials });
    }
  }
  const byGroup = real.flatMap(({ family, trials }) =>
    GROUPS.map(([name, techniques]) => [
      family.id,
      name,
      ...COLUMNS.map(([, whats]) =>
        covered(
          trials.filter(({ technique }) => techniques.includes(technique)),
          whats,
        ),
      ),
    ]),
  );
  const kept = real.map(({ family, trials }) => ({ family, shares: actual(trials) }));
  writeFileSync(
    fileURLToPath(new URL('../../../docs/accuracy-calibration.svg', import.meta.url)),
    plot(kept),
  );
  return `## Families of bodies, and noise as it is

Three families of made-up bodies throw every technique, ${SEEDS.length} seeds each: ${FAMILIES.map(({ id, name }) => `_${id}_ (${name})`).join('; ')}. Noise of 2 mm, told to be that from frame to frame; how it hangs together, that 1 % of the points jump by 25 mm and that three frames in a hundred are lost, nobody tells. Contact is marked on its frame.

Each cell: median / 90th percentile of the error's size (per cent within ±).

${table(['family', 'a second', 'noise', ...heads], rows)}

Per cent within ± by technique at 240 frames a second with noise that hangs together for 5 ms, jumps and gaps (Wilson's interval of 95 %, number):

${table(['family', 'technique', ...COLUMNS.map(([name]) => name)], byGroup)}

Of all these numbers, per cent within the ± of other shares than 95:

${table(
  ['family', ...NOMINAL.map((one) => `${100 * one} %`)],
  kept.map(({ family, shares }) => [family.id, ...shares.map((one) => (100 * one).toFixed(0))]),
)}

![Promised against kept](accuracy-calibration.svg)
`;
}
