/** How well the judge tells for how long a leak shows, where that is what it costs. */
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { LASTING, lastingTrials, type LastingTrial } from '@sinew/fighters/trials/lasting';
import { LASTING_PAIRS, pairTrials } from '@sinew/fighters/trials/lastingPairs';
import { wilson } from './familyTables';
import { quantile, table } from './table';

const RATES = [240, 60];
const SEEDS = [1, 2];

function row(name: string, rate: number, trials: readonly LastingTrial[]): string[] {
  const told = trials.flatMap(({ said, truth }) => (said ? [{ ...said, truth }] : []));
  const milliseconds = (values: readonly number[], share: number) =>
    (1000 * quantile(values, share)).toFixed(0);
  const errors = told.map(({ seconds, truth }) => Math.abs(seconds - truth));
  const inside = told.filter(({ half }, i) => errors[i]! <= half).length;
  const percent = (value: number) => (100 * value).toFixed(0);
  return [
    name,
    String(rate),
    `${told.length} of ${trials.length}`,
    milliseconds(
      told.map(({ truth }) => truth),
      0.5,
    ),
    `${milliseconds(errors, 0.5)} / ${milliseconds(errors, 0.9)}`,
    milliseconds(
      told.map(({ half }) => half),
      0.5,
    ),
    `${percent(inside / told.length)} (${wilson(inside, told.length).map(percent).join('–')})`,
  ];
}

export function lastingSection(): string {
  const rows = RATES.flatMap((rate) => {
    const filmed = { rate, noise: 0.002, flaws: REAL };
    const trials = FAMILIES.flatMap((family) => [
      ...lastingTrials(family, filmed, ['clear'], SEEDS),
      ...pairTrials(family, filmed, SEEDS),
    ]);
    return [...LASTING, ...LASTING_PAIRS].map((fault) =>
      row(
        fault,
        rate,
        trials.filter((trial) => trial.fault === fault),
      ),
    );
  });
  return `## What leaks cost in time

Some leaks take no momentum but time: a hand that draws back or dips is seen before it leaves, a hand that is away or late home, or out without a shoulder at the chin, leaves the head open; hips that go back, or a heel that is still up, make the next strike late. The judge says for how long, from half of the most to half of the most, or from where half of it is gone. The three families of bodies with a leak put clearly into every technique that can have it, ${SEEDS.length} seeds each, noise of 2 mm that hangs together for 5 ms, jumps and gaps, contact told, in combinations both contacts and the start of the next hips. That a hand comes home after the next contact is the difference of two instants, and is not in the table. Truth: the exact motion by steps of half a millisecond. 90 % should lie within (Wilson's interval of 95 %).

${table(
  [
    'leak',
    'frames a second',
    'told',
    'truth, ms',
    'error, median / 90th, ms',
    'range ±, ms',
    'within, %',
  ],
  rows,
)}
`;
}
