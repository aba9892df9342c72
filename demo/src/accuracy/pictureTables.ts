/** What one picture shows: how far off each number is, how often it is refused, from every side. */
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { trialsOf, type Trials } from '@sinew/fighters/trials/measured';
import { quantile, table } from './table';

const TECHNIQUES = Object.keys(FORMS) as TechniqueId[];
const SEEDS = [1, 2, 3];
const SETTINGS = [
  { rate: 240, noise: 0.003 },
  { rate: 60, noise: 0.005 },
];

const ROWS = [
  ['load, ms', ['load'], 1000],
  ['hips, ms', ['hips'], 1000],
  ['trunk (thigh), ms', ['trunk'], 1000],
  ['arm (shank), ms', ['arm'], 1000],
  ['lead, ms', ['lead'], 1000],
  ['separation, °', ['separation.max', 'separation.growth'], 180 / Math.PI],
  ['turns, °', ['turn.pelvis', 'turn.trunk'], 180 / Math.PI],
  ['sink, cm', ['sink'], 100],
  ['reach, %', ['reach'], 100],
  ['speed at contact, %', ['speed.contact'], null],
  ['speed at most, %', ['speed.peak'], null],
  ['end, ms', ['end'], 1000],
  ['home, ms', ['home'], 1000],
] as const;

/** "2.1 / 7.9 (96, 40)": median and 95th percentile, per cent within ±, per cent refused. */
function cell(all: readonly Trials[], [, whats, by]: (typeof ROWS)[number]): string {
  const isOne = (what: string) => (whats as readonly string[]).includes(what);
  const found = all.flatMap(({ trials }) => trials).filter(({ what }) => isOne(what));
  const refused = all.flatMap(({ missed }) => missed).filter((one) => isOne(one.split(' ')[1]!));
  if (found.length === 0) return 'refused';
  const sizes = found.map(({ error, truth }) =>
    Math.abs(by === null ? (100 * error) / truth : by * error),
  );
  const number = (value: number) => value.toFixed(value < 10 ? 1 : 0);
  const inside = found.filter(({ isCovered }) => isCovered).length / found.length;
  const absent = refused.length / (refused.length + found.length);
  return `${number(quantile(sizes, 0.5))} / ${number(quantile(sizes, 0.95))} (${(100 * inside).toFixed(0)}, ${(100 * absent).toFixed(0)})`;
}

export function pictureSection(): string {
  const tables = SETTINGS.map(({ rate, noise }) => {
    const byView = VIEWS.map((view) => {
      const found = FAMILIES.map((family) =>
        trialsOf(TECHNIQUES, { rate, noise, isContactKnown: true, family, view }, SEEDS),
      );
      console.error(`from ${view}, ${rate} a second`);
      return found;
    });
    const rows = ROWS.map((row) => [row[0], ...byView.map((found) => cell(found, row))]);
    return `${rate} frames a second, ${1000 * noise} mm:\n\n${table(['', ...VIEWS], rows)}`;
  });
  return `## What one picture shows

The same strikes of all three families seen by one far, level camera, ${SEEDS.length} seeds each, contact on its frame, held against their truth in space. Each cell: median / 95th percentile of the error's size (per cent within ±, per cent refused because the view does not show it).

${tables.join('\n\n')}
`;
}
