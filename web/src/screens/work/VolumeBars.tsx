import type { Load, Volume } from '@sinew/core/train/work/volume';
import { shortDay } from '@/manner/manner';

const HEIGHT = 84;
const WIDTH = 44;

/** Strikes a week, full power as the filled part; a jump is said in words. */
export function VolumeBars({ volume: { weeks, all, power } }: { volume: Volume }) {
  const most = Math.max(1, ...weeks.map(({ strikes }) => strikes));
  const now = weeks[weeks.length - 1]!;
  return (
    <section aria-label="Strikes a week">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {now.strikes === 0
          ? 'No strike logged this week.'
          : `${now.strikes} strikes this week, ${now.power} at full power.`}
      </h2>
      <svg
        viewBox={`0 0 ${WIDTH * weeks.length} ${HEIGHT + 34}`}
        className="mt-3 w-full max-w-80"
        role="img"
        aria-label={weeks.map((week) => `${shortDay(week.monday)}: ${week.strikes}`).join('; ')}
      >
        {weeks.map((week, i) => {
          const height = (week.strikes / most) * HEIGHT;
          const filled = (week.power / most) * HEIGHT;
          const x = i * WIDTH + 6;
          return (
            <g key={week.monday}>
              {height > 0 && (
                <rect
                  x={x}
                  y={HEIGHT + 16 - height}
                  width={WIDTH - 12}
                  height={height}
                  className="fill-none stroke-ink"
                />
              )}
              <rect
                x={x}
                y={HEIGHT + 16 - filled}
                width={WIDTH - 12}
                height={filled}
                className="fill-ink"
              />
              <text
                x={x + WIDTH / 2 - 6}
                y={HEIGHT + 12 - height}
                textAnchor="middle"
                className="fill-ink text-[11px]"
              >
                {week.strikes || ''}
              </text>
              <text
                x={x + WIDTH / 2 - 6}
                y={HEIGHT + 30}
                textAnchor="middle"
                className="fill-soft text-[11px]"
              >
                {i === weeks.length - 1 ? 'now' : shortDay(week.monday).slice(4)}
              </text>
            </g>
          );
        })}
        <line
          x1={0}
          x2={WIDTH * weeks.length}
          y1={HEIGHT + 16}
          y2={HEIGHT + 16}
          className="stroke-ink"
        />
      </svg>
      <Caution load={all} what="strikes" />
      <Caution load={power} what="full-power strikes" />
      <p className="mt-2 text-sm text-soft">
        Against the mean of up to four weeks before. More than 30 % above it is Sinew’s own caution,
        no medical rule.
      </p>
    </section>
  );
}

function Caution({ load, what }: { load: Load; what: string }) {
  if (!load.isJump || load.usual === null) return null;
  const how =
    load.ratio === null
      ? `The first ${what} in weeks.`
      : `${Math.round(100 * (load.ratio - 1))} % more ${what} than usual (${Math.round(load.usual)} a week).`;
  return <p className="mt-2 border-l-4 border-now pl-3 font-semibold">{how} Hold back.</p>;
}
