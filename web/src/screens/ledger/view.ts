/** How a trend is drawn: where everything of its chart stands. */
import { scaleLinear } from 'd3-scale';
import { daysBetween, type Day } from '@sinew/core/foundation/calendar/day';
import { noiseBand } from '@sinew/core/train/progress/trend';
import { quantity } from '@/manner/manner';
import type { SetPoint, Track } from '@/data/progress/trends';

/** The best set so far; null where nobody says which way is better. */
export function bestOf({ wanted, points }: Track): SetPoint | null {
  if (wanted === null) return null;
  const worth = ({ value }: SetPoint) =>
    ({ more: value, less: -value, 'nearer-zero': -Math.abs(value) })[wanted];
  return points.reduce<SetPoint | null>(
    (best, one) => (best === null || worth(one) > worth(best) ? one : best),
    null,
  );
}

export interface ChartShape {
  readonly dots: readonly {
    readonly x: number;
    readonly y: number;
    readonly top: number;
    readonly bottom: number;
    readonly point: SetPoint;
  }[];
  readonly band: { readonly top: number; readonly bottom: number };
  readonly ticks: readonly { readonly y: number; readonly label: string }[];
  readonly days: readonly { readonly x: number; readonly day: Day }[];
}

/** Where everything of a trend's chart stands, pixels. */
export function chartOf(
  { points, unit }: Track,
  typicalError: number | null,
  width: number,
  height: number,
): ChartShape {
  const first = points[0]!;
  const band = noiseBand(first, typicalError);
  const ends = points.flatMap(({ value, sigma }) => [value - 1.96 * sigma, value + 1.96 * sigma]);
  const y = scaleLinear(
    [Math.min(...ends, band.from), Math.max(...ends, band.to)],
    [height - 10, 10],
  ).nice(4);
  const span = Math.max(1, daysBetween(first.day, points[points.length - 1]!.day));
  const x = scaleLinear([0, span], [24, width - 24]);
  const at = (day: Day) => x(daysBetween(first.day, day));
  const shown = [first, points[points.length >> 1]!, points[points.length - 1]!];
  return {
    dots: points.map((point) => ({
      x: at(point.day),
      y: y(point.value),
      top: y(point.value + 1.96 * point.sigma),
      bottom: y(point.value - 1.96 * point.sigma),
      point,
    })),
    band: { top: y(band.to), bottom: y(band.from) },
    ticks: y.ticks(4).map((value) => ({ y: y(value), label: quantity(value, unit) })),
    days: [...new Set(shown.map(({ day }) => day))].map((day) => ({ x: at(day), day })),
  };
}
