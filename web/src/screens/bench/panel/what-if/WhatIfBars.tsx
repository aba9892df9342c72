import { scaleLinear } from 'd3-scale';
import type { SimulatedStrike } from '@sinew/core/judge/simulate/strike';
import { fieldUnit } from '@/manner/manner';

const NUMBERS = [
  ['speed', 'speed at contact', 'm/s'],
  ['mass', 'mass behind it', 'kg'],
  ['momentum', 'momentum', 'N·s'],
] as const;

/** As it was (hollow) and as it would be (filled): three numbers, and what each link adds to the speed. */
export function WhatIfBars({
  links,
  before,
  now,
}: {
  links: readonly string[];
  before: SimulatedStrike;
  now: SimulatedStrike;
}) {
  const names = ['step', ...links];
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
      <h3 className="mt-3 text-sm font-semibold">
        What each link adds to the speed, {fieldUnit('m/s').unit} (outline: as it was)
      </h3>
      <div className="mt-1 space-y-1">
        {names.map((name, i) => (
          <div key={name} className="grid grid-cols-[5rem_1fr_3rem] items-center gap-2 text-sm">
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
          </div>
        ))}
      </div>
    </>
  );
}
