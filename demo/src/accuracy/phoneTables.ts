/** What one phone tells of when a strike begins, from points as good as careful marking. */
import { isPresent } from '@sinew/core/foundation/reading/reading';
import { measureOne } from '@sinew/core/measure/measures/allMeasures';
import { clean } from '@sinew/fighters/fighter/recipe';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { halfTurn, see } from '@sinew/fighters/trials/onePhone';
import { quantile, table } from './table';

const DEGREE = Math.PI / 180;
const SEEDS = [1, 2, 3];
const PLACES = [150, 120, 90, 60, -60, -90];

interface Miss {
  readonly miss: number;
  readonly sigma: number;
}

/** "2.1 / 7.9 (96, 10)": ms, median and 95th percentile; per cent within ±, per cent refused. */
function cell(found: readonly (Miss | null)[]): string {
  const known = found.filter((one) => one !== null);
  if (known.length === 0) return 'refused';
  const sizes = known.map(({ miss }) => 1000 * Math.abs(miss));
  const covered = known.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma).length;
  const share = (count: number, of: number) => ((100 * count) / of).toFixed(0);
  return (
    `${quantile(sizes, 0.5).toFixed(1)} / ${quantile(sizes, 0.95).toFixed(1)} ` +
    `(${share(covered, known.length)}, ${share(found.length - known.length, found.length)})`
  );
}

const strikes = (techniques: readonly ('cross' | 'rear-hook' | 'lead-hook' | 'whip-straight')[]) =>
  FAMILIES.flatMap((family) =>
    techniques.flatMap((technique) =>
      SEEDS.map((seed) => {
        const stance = seed === 2 ? ('southpaw' as const) : ('orthodox' as const);
        return { seed, recipe: family.of(clean(technique, { stance }), seed) };
      }),
    ),
  );

export function phoneSection(): string {
  const rows = PLACES.flatMap((place) =>
    [120, 240].map((rate) => {
      const drives = strikes(['cross', 'whip-straight']).map(({ recipe, seed }) => {
        const { drive } = see(recipe, place * DEGREE, rate, seed).events;
        return drive
          ? { miss: drive.time - truthOfStrike(recipe).times.hips!, sigma: drive.sigma }
          : null;
      });
      const turning = strikes(['cross', 'rear-hook', 'lead-hook']).map(({ recipe, seed }) => ({
        recipe,
        seen: see(recipe, place * DEGREE, rate, seed),
      }));
      const halves = (['pelvis', 'trunk'] as const).map((link) =>
        turning.map(({ recipe, seen }) => {
          const reading = measureOne(`turn.half.${link}`, seen);
          if (!isPresent(reading)) return null;
          const truth = halfTurn(recipe, link === 'pelvis' ? 'Hip' : 'Shoulder');
          return { miss: recipe.contact - reading.value - truth, sigma: reading.sigma };
        }),
      );
      console.error(`from ${place}°, ${rate} a second`);
      return [`${place}°`, String(rate), cell(drives), ...halves.map(cell)];
    }),
  );
  return `## One phone, nothing worn

One far, level camera at an azimuth (0 in front, 90 square on the side toward which the chest is turned in guard), three families of bodies, ${SEEDS.length} seeds, both stances, points 2 pixels off at 300 pixels a metre, as careful marking gives them, contact told. The start of the drive (cross and whip straight) is held against the start of the hips, which it is not but lies near; half of the turn (cross, rear and lead hook) against its own truth. Milliseconds: median / 95th percentile (per cent within ±, per cent refused). Of a body that our own tracker sees the drive is sure to ± 30 ms at best, and half of the pelvis' turn is refused.

${table(['place', 'a second', 'start of the drive', 'pelvis half-way', 'trunk half-way'], rows)}`;
}
