import { scaleLinear } from 'd3-scale';
import type { Model, SimulatedStrike } from '@sinew/core/judge/simulate/strike';
import { fieldUnit } from '@/manner/manner';

const NUMBERS = [
  ['speed', 'speed at contact', 'm/s'],
  ['mass', 'mass behind it', 'kg'],
  ['momentum', 'momentum', 'N·s'],
] as const;

/**
 * As it was (hollow) and as it would be (filled): three numbers, what each link adds to the speed, and what the
 * strike as it was loses of its momentum when that link is held still.
 */
export function WhatIfBars({
  model,
  before,
  now,
  worth,
}: {
  model: Model;
  before: SimulatedStrike;
  now: SimulatedStrike;
  /** Null until it is known; a link's own null is a strike that does not arrive. */
  worth: readonly (number | null)[] | null;
}) {
  const names = ['step', ...model.links.map(({ name }) => name)];
  const all = [...before.shares, ...now.shares, 0];
  const x = scaleLinear([Math.min(...all), Math.max(...all)], [0, 100]).nice();
  const bar = (value: number) => {
    const [from, to] = [Math.min(0, value), Math.max(0, value)].map(x);
    return { left: `${from}%`, width: `${to! - from!}%` };
  };
  return (
    <>
      <dl className="mt-3 grid grid-cols-3 gap-x-4 border-t border-rule pt-2">
        {NUMBERS.map(([key, name, of]) => {
          const { unit, shown } = fieldUnit(of);
          const told = (value: number) => Number(shown(value)).toFixed(1);
          return (
            <div key={key}>
              <dt className="text-sm text-soft">{name}</dt>
              <dd>
                <span className="font-serif text-2xl">{told(now[key])}</span> {unit}
                <span className="block text-sm text-soft">was {told(before[key])}</span>
              </dd>
            </div>
          );
        })}
      </dl>
      <div className="mt-3 grid grid-cols-[1fr_5.5rem] items-end gap-2 text-sm font-semibold">
        <h3>What each link adds to the speed, {fieldUnit('m/s').unit} (outline: as it was)</h3>
        <h3 id="held-still" className="text-right">
          Momentum if held still
        </h3>
      </div>
      <div className="mt-1 space-y-1">
        {names.map((name, i) => (
          <div
            key={name}
            className="grid grid-cols-[5rem_1fr_3rem_5rem] items-center gap-2 text-sm"
          >
            <span className="first-letter:uppercase">{name}</span>
            <span className="relative h-4">
              <span className="absolute inset-y-0.5 bg-ink" style={bar(now.shares[i] ?? 0)} />
              <span
                className="absolute inset-y-0 border border-soft"
                style={bar(before.shares[i] ?? 0)}
              />
            </span>
            <span className="text-right">
              {parseFloat(fieldUnit('m/s').shown(now.shares[i] ?? 0))
                .toFixed(1)
                .replace('-', '−')}
            </span>
            <span className="text-right" aria-describedby="held-still">
              {i > 0 && worth && !model.joints[i - 1]!.isHeld && lostWithout(worth[i - 1]!)}
            </span>
          </div>
        ))}
      </div>
    </>
  );
}

function lostWithout(share: number | null): string {
  if (share === null) return 'no strike';
  const percent = Math.round(100 * share);
  return percent > 0 ? `−${percent} %` : `+${-percent} %`;
}
