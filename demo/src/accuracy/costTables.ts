/** The part of docs/accuracy.md about what leaks cost. */
import { costTrials, DRIVEN_TECHNIQUES, type CostTrial } from '@sinew/fighters/trials/costs';
import { wilson } from './familyTables';
import { quantile, table } from './table';

/** Others than those that the range was found on (1 to 12). */
const BODIES = Array.from({ length: 12 }, (_, i) => 101 + i);

const percent = (share: number) => `${(100 * share).toFixed(0)} %`;

function row(name: string, trials: readonly CostTrial[]): string[] {
  const known = trials.flatMap(({ truth, cost }) => (cost ? [{ truth, cost }] : []));
  const unknown = trials.filter(({ cost, why }) => cost === null && why !== null).length;
  if (known.length === 0)
    return [name, String(trials.length), '0', String(unknown), '', '', '', ''];
  const inside = known.filter(
    ({ truth, cost }) => cost.shareLow <= truth && truth <= cost.shareHigh,
  ).length;
  const [low, high] = wilson(inside, known.length);
  return [
    name,
    String(trials.length),
    String(known.length),
    String(unknown),
    percent(
      quantile(
        known.map(({ truth }) => truth),
        0.5,
      ),
    ),
    percent(
      quantile(
        known.map(({ cost }) => cost.share),
        0.5,
      ),
    ),
    percent(
      quantile(
        known.map(({ truth, cost }) => Math.abs(cost.share - truth)),
        0.5,
      ),
    ),
    `${percent(inside / known.length)} (${percent(low)} to ${percent(high)})`,
  ];
}

export function costSection(): string {
  const trials = costTrials(DRIVEN_TECHNIQUES, BODIES);
  const names = [...new Set(trials.map(({ technique, leak }) => `${technique}: ${leak}`))];
  return `## What leaks cost

Fighters who throw by torques in space (\`fighters/src/driven\`): a pelvis that is pushed and turned from the floor, a trunk that leans and turns, a shoulder of three hinges, an elbow – or, for the kick, hips over one leg, a hip joint of three hinges, a knee; muscles that come on, tire with speed and pull over their range otherwise than the judge’s. ${BODIES.length} bodies, each throwing without a leak and with it, at the same target; 240 frames a second, 2 mm, contact told. Truth: the share of momentum (effective mass × speed toward the target) that the same body loses. Counted where the judge finds the leak and gives a cost; what it found no cost for, because its model does not follow, stands beside it. 90 % of truths should lie within.

${table(
  [
    'strike and leak',
    'thrown',
    'cost given',
    'no cost',
    'truth, median',
    'judge, median',
    'error, median',
    'within',
  ],
  [
    ...names.map((name) =>
      row(
        name,
        trials.filter(({ technique, leak }) => `${technique}: ${leak}` === name),
      ),
    ),
    row('all', trials),
  ],
)}

In a lead hook these bodies lose nothing when all is called at once: its way is short, and the ranges take that in. What its elbow costs, a third when it gives or is open, the model said a tenth of or took for a gain: there it gives no cost. Front and side kicks, knees, uppercuts and elbows that rise, drop or thrust do not go round the upright: they have no model. Of the last two, what legs and weight do not give has a cost all the same, for speeds add up (the body is taken to give 15 ± 5 % of them; it meets its target in the same posture). An elbow that leaves before its body has none: on driven bodies a rising one so called gained 9 to 17 %, a dropping one lost 6 to 10 %. Of braking the truth is what the same arm would have carried had it gone on driving; the judge only sees the speed that was there.
`;
}
