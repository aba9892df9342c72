/** What worn bands tell from one film: ray-cast torsos whose turn is known, from several places. */
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { randomBanded, type BandTrial } from '@sinew/fighters/trials/banded';
import { BANDS } from '@sinew/core/observe/band/band';
import { quantile, table } from './table';

const DEGREE = Math.PI / 180;
const SEEDS = [1, 2, 3, 4];

interface Row {
  readonly name: string;
  readonly recipe: Recipe;
  /** Degrees. */
  readonly azimuth: number;
  readonly rate: number;
  readonly isTape?: boolean;
}

const CROSS = clean('cross');
const LATE = { ...CROSS, hipsToTrunk: 0.005 };
const ROWS: readonly Row[] = [
  ...[180, 150, 135, 90, -45, 0].map((azimuth) => ({
    name: `cross, ${azimuth}°`,
    recipe: CROSS,
    azimuth,
    rate: 120,
  })),
  { name: 'cross, 180°', recipe: CROSS, azimuth: 180, rate: 240 },
  { name: 'cross, hips and trunk together, 180°', recipe: LATE, azimuth: 180, rate: 120 },
  { name: 'lead hook, 180°', recipe: clean('lead-hook'), azimuth: 180, rate: 120 },
  { name: 'rear hook, 180°', recipe: clean('rear-hook'), azimuth: 180, rate: 120 },
  ...[180, 135, 90].map((azimuth) => ({
    name: `tape: cross, ${azimuth}°`,
    recipe: CROSS,
    azimuth,
    rate: 120,
    isTape: true,
  })),
  {
    name: 'tape: rear hook, 180°',
    recipe: clean('rear-hook'),
    azimuth: 180,
    rate: 120,
    isTape: true,
  },
];

interface Miss {
  readonly miss: number;
  readonly sigma: number;
}

/** "2.1 / 7.9 (96)": median, 95th percentile, per cent within ±; how many there are where some lack. */
function cell(found: readonly Miss[], by: number, wanted: number): string {
  if (found.length === 0) return 'refused';
  const sizes = found.map(({ miss }) => by * Math.abs(miss));
  const covered = found.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma).length;
  const shown = `${quantile(sizes, 0.5).toFixed(1)} / ${quantile(sizes, 0.95).toFixed(1)}`;
  const of = found.length < wanted ? ` of ${found.length}` : '';
  return `${shown} (${((100 * covered) / found.length).toFixed(0)}${of})`;
}

function startMisses(trials: readonly BandTrial[], of: 'hips' | 'trunk'): Miss[] {
  return trials.flatMap(({ starts, film }) => {
    const mark = starts[of];
    const truth = truthOfStrike(film.recipe).times[of]!;
    return mark ? [{ miss: mark.time - truth, sigma: mark.sigma }] : [];
  });
}

interface Lead extends Miss {
  readonly lead: number;
  readonly truth: number;
}

function leads(trials: readonly BandTrial[]): Lead[] {
  return trials.flatMap(({ starts: { hips, trunk }, film }) => {
    if (!hips || !trunk) return [];
    const { times } = truthOfStrike(film.recipe);
    const [lead, truth] = [trunk.time - hips.time, times.trunk! - times.hips!];
    return [{ lead, truth, miss: lead - truth, sigma: Math.hypot(hips.sigma, trunk.sigma) }];
  });
}

/** A lead of so much or more is one, seconds; asked one-sided at 95 %. */
const ENOUGH = 0.02;

function decided(found: readonly Lead[]): string {
  const sure = found.filter(({ lead, sigma }) => Math.abs(lead - ENOUGH) > 1.645 * sigma);
  const right = sure.filter(({ lead, truth }) => lead > ENOUGH === truth > ENOUGH);
  return `${sure.length} of ${found.length}, ${right.length} right`;
}

export function bandSection(): string {
  const rows = ROWS.map(({ name, recipe, azimuth, rate, isTape = false }) => {
    const trials = SEEDS.map((seed) =>
      randomBanded(recipe, { azimuth: azimuth * DEGREE, rate, seed, isTape }),
    );
    console.error(name);
    const frames = trials.reduce((sum, one) => sum + one.frames.length, 0);
    const turns = BANDS.map((band) =>
      cell(
        trials.flatMap(({ misses }) => misses[band]),
        1 / DEGREE,
        frames,
      ),
    );
    return [
      name,
      String(rate),
      ...turns,
      ...(['hips', 'trunk'] as const).map((of) =>
        cell(startMisses(trials, of), 1000, trials.length),
      ),
      cell(leads(trials), 1000, trials.length),
      decided(leads(trials)),
    ];
  });
  const heads = ['place', 'a second', 'turn of hips, °', 'turn of ribs, °', 'start of hips, ms'];
  return `## Worn bands, one film

Torsos of ${SEEDS.length} seeds a row, ray by ray: boxy ellipses with folds of 3 mm, soft and grainy pictures of a student some 3.5 m away (a bar of 30 mm is 6 pixels wide), arms in front of the body as they strike, joints 5 pixels off for the whole film and 1.5 from frame to frame; the reader is told the focal length within 5 %, the girth within 5 mm. No cloth of a real person, no sweat, no rolling shutter. Both bands are closed in front. Each cell: median / 95th percentile of the error's size (per cent within ±, of how many where an arm hid the rest). Tape: strips and gaps of 12 to 60 mm in an order that the reader does not know, nor where the camera stands; its turns are counted from guard. The last column asks whether the lead is 20 ms or more, one-sided at 95 %.

${table([...heads, 'start of trunk, ms', 'lead, ms', '20 ms or more?'], rows)}`;
}
