/** What one phone tells of when a strike begins, from points as good as careful marking. */
import { isPresent } from '@sinew/core/foundation/reading/reading';
import { measureOne } from '@sinew/core/measure/measures/allMeasures';
import { besidesOf, measureStrike } from '@sinew/core/analysis/analyze';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { judge } from '@sinew/core/judge/fault/judge';
import { faulty, FAULTY_FIGHTERS } from '@sinew/fighters/fighter/faults';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { halfTurn, see, seeMarked } from '@sinew/fighters/trials/onePhone';
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

const MARKED_FROM = { rear: [150, 120, 90, -45, -90], lead: [150, 120, -45] } as const;
const TURNING = ['cross', 'rear-hook', 'lead-hook'] as const;
const TOGETHER = FAULTY_FIGHTERS.find(({ fault }) => fault === 'all-at-once')!;

/** The turn as the coach marks it, and what is made of it: a row a place and rate. */
function markedRows(): string[][] {
  return MARKED_FROM.rear.flatMap((place) =>
    [120, 240].map((rate) => {
      const of = (made: (technique: (typeof TURNING)[number]) => Recipe) =>
        TURNING.filter(
          (technique) =>
            technique !== 'lead-hook' || MARKED_FROM.lead.some((lead) => lead === place),
        ).flatMap((technique) =>
          FAMILIES.flatMap((family) =>
            SEEDS.map((seed) => {
              const stance = seed === 2 ? ('southpaw' as const) : ('orthodox' as const);
              const recipe = { ...family.of(made(technique), seed), stance };
              const seen = seeMarked(recipe, place * DEGREE, rate, seed);
              const { readings } = measureStrike(seen, seen, besidesOf(seen));
              const says = judge(techniqueById(technique), readings, USUAL_RULES).find(
                ({ fault }) => fault === 'all-at-once',
              )!;
              return { recipe, lead: readings['lead.half'], says };
            }),
          ),
        );
      const [sound, faults] = [
        of((technique) => clean(technique)),
        of((t) => faulty(TOGETHER, t, 'clear')),
      ];
      const misses = [...sound, ...faults].map(({ recipe, lead }) => {
        if (!isPresent(lead)) return null;
        const truth = halfTurn(recipe, 'Shoulder') - halfTurn(recipe, 'Hip');
        return { miss: lead.value - truth, sigma: lead.sigma };
      });
      const words = (all: typeof sound) =>
        [
          count(all, ({ says }) => says.status === 'found'),
          count(all, ({ says }) => says.open?.likely === 'there'),
          count(all, ({ says }) => says.status === 'cant-tell' && says.open?.likely === null),
          count(all, ({ says }) => says.open?.likely === 'not-there'),
          count(all, ({ says }) => says.status === 'clear'),
        ].join(' · ');
      return [`${place}°`, String(rate), cell(misses), words(sound), words(faults)];
    }),
  );
}

const count = <T>(all: readonly T[], is: (one: T) => boolean) => all.filter(is).length;

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

${table(['place', 'a second', 'start of the drive', 'pelvis half-way', 'trunk half-way'], rows)}

The same, hips and shoulders marked every 33 ms through the turn (12 frames) over a tracker that sees 0.7 of it; how much sooner the pelvis is half-way than the trunk, and what is said of hips and trunk leaving together: surely there · likely there · cannot tell · likely not there · surely not there, of strikes whose hips lead by 45 ms and of strikes whose hips and trunk leave together. Cross and rear hook, and the lead hook where it can be seen (150°, 120°, −45°).

${table(['place', 'a second', 'pelvis before trunk, half-way', 'hips lead', 'together'], markedRows())}`;
}
