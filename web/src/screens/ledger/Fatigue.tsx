import { scaleLinear } from 'd3-scale';
import { MEASURE_NAMES } from '@sinew/core/measure/measures/allMeasures';
import type { Fading } from '@sinew/core/train/progress/fatigue';
import { pastDay } from '@/data/database/today';
import { quantity, say } from '@/manner/manner';

const WIDTH = 190;
const HEIGHT = 56;

/** What the rounds of one day did to the strike. */
export function Fatigue({ day, rounds }: { day: string; rounds: readonly Fading[] }) {
  const known = rounds.filter((one) => !('absent' in one));
  const unknown = rounds.filter((one) => 'absent' in one);
  const fading = known.filter((one) => !('absent' in one) && one.isReal).length;
  return (
    <section aria-label="Rounds">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        Rounds of {pastDay(day)}:{' '}
        {fading === 0 ? 'nothing goes that can be claimed' : `${fading} of ${known.length} go`}
      </h2>
      <ul>
        {known.map((one) => (
          <Row key={one.id} fading={one} />
        ))}
      </ul>
      {unknown.length > 0 && (
        <p className="mt-2 text-sm text-soft">
          Not measured: {unknown.map(({ id }) => MEASURE_NAMES[id].toLowerCase()).join(', ')}.
        </p>
      )}
    </section>
  );
}

function Row({ fading }: { fading: Fading }) {
  if ('absent' in fading) return null;
  const { id, rounds, slope, halfWidth, isReal } = fading;
  const { unit } = rounds[0]!.reading;
  const spans = rounds.flatMap(({ reading: { value, sigma } }) => [
    value - 1.96 * sigma,
    value + 1.96 * sigma,
  ]);
  const y = scaleLinear([Math.min(...spans), Math.max(...spans)], [HEIGHT - 6, 6]);
  const x = scaleLinear([rounds[0]!.round, rounds[rounds.length - 1]!.round], [10, WIDTH - 10]);
  return (
    <li className="flex flex-wrap items-center gap-x-8 border-b border-rule py-2">
      <span className="w-64">
        <span className="font-semibold">{MEASURE_NAMES[id]}</span>
        <span className={isReal ? 'block' : 'block text-soft'}>
          {slope > 0 ? '+' : ''}
          {quantity(slope, unit)} ± {quantity(halfWidth, unit)} a round
          {isReal ? '' : ': no change you can claim'}
        </span>
      </span>
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={rounds
          .map(({ round, reading }) => `round ${round}: ${say(reading)}`)
          .join('; ')}
      >
        {rounds.map(({ round, reading: { value, sigma } }) => (
          <g key={round}>
            <line
              x1={x(round)}
              x2={x(round)}
              y1={y(value - 1.96 * sigma)}
              y2={y(value + 1.96 * sigma)}
              className="stroke-ink"
            />
            <circle cx={x(round)} cy={y(value)} r={4} className="fill-ink" />
          </g>
        ))}
      </svg>
      <span className="text-sm text-soft">
        round {rounds[0]!.round}: {say(rounds[0]!.reading)}; round{' '}
        {rounds[rounds.length - 1]!.round}: {say(rounds[rounds.length - 1]!.reading)}
      </span>
    </li>
  );
}
