'use client';

import { useEffect, useState } from 'react';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import type { Fitted } from '@sinew/core/judge/simulate/fit';
import type { SimulatedStrike } from '@sinew/core/judge/simulate/strike';
import { AS_IT_IS, type WhatIf } from '@sinew/core/judge/simulate/whatIf';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { useBench } from '../../document/benchStore';
import { chainModel } from './chainModel';
import { useAnalysis } from '../../document/useAnalysis';
import { WhatIfBars } from './WhatIfBars';

type Start =
  | { readonly kind: 'fitting' }
  | { readonly kind: 'cannot'; readonly why: string }
  | { readonly kind: 'fitted'; readonly fitted: Fitted };

/** A model that misses more than this follows the strike only roughly. */
const ROUGH = 1;

/** This strike in the chain model: what would be if a link went later, turned stronger, held less? */
export function WhatIfTab({ strike }: { strike: StrikeDocument }) {
  const start = useFitted(strike);
  const [asked, setAsked] = useState<WhatIf>(AS_IT_IS);
  const fitted = start.kind === 'fitted' ? start.fitted : null;
  const result = useThrown(fitted, asked);
  const worth = useWorth(fitted);
  if (start.kind === 'fitting') {
    return (
      <p role="status" className="text-soft">
        Bringing the chain model to throw this strike…
      </p>
    );
  }
  if (start.kind === 'cannot') {
    return (
      <>
        <h2 className="font-serif text-2xl">No model of this strike yet.</h2>
        <p className="mt-2">{start.why}</p>
      </>
    );
  }
  const { model, simulated, misfit } = start.fitted;
  const links = model.links.map(({ name }) => name);
  const last = links.length - 1;
  const set = (change: Partial<WhatIf>) => setAsked({ ...asked, ...change });
  const at = (values: readonly number[], i: number, value: number, usual: number) =>
    links.map((_, k) => (k === i ? value : (values[k] ?? usual)));
  const shown = result ?? simulated;
  return (
    <>
      <h2 className="font-serif text-2xl leading-tight">{sentence(simulated, shown)}</h2>
      <p className="mt-1 text-sm text-soft">
        A chain of {links.length} links in one plane, brought to throw this very strike
        {misfit > ROUGH ? '; it follows it only roughly' : ''}. An estimate: compare, do not quote.
      </p>
      <WhatIfBars model={model} before={simulated} now={shown} worth={worth} />
      <div className="mt-4 space-y-2.5 border-t border-ink pt-3">
        {links.slice(1, Math.min(last, 2) + 1).map((name, k) => {
          const i = k + 1;
          const value = asked.delays[i] ?? 0;
          return (
            <Slider
              key={name}
              label={`${name} starts later`}
              unit="ms"
              min={-80}
              max={120}
              step={5}
              value={Math.round(1000 * value)}
              onChange={(ms) => {
                const delays = links.map((_, j) =>
                  j === i || (i === 2 && j > 2) ? ms / 1000 : (asked.delays[j] ?? 0),
                );
                set({ delays });
              }}
            />
          );
        })}
        {links.slice(0, 2).map((name, i) => (
          <Slider
            key={name}
            label={`${name} turns stronger`}
            unit="%"
            min={40}
            max={200}
            step={5}
            value={Math.round(100 * (asked.powers[i] ?? 1))}
            onChange={(percent) => set({ powers: at(asked.powers, i, percent / 100, 1) })}
          />
        ))}
        {model.meets.at === 'reach' && (
          <Slider
            label="reach at contact"
            unit="%"
            min={70}
            max={98}
            step={1}
            value={Math.round(100 * (asked.reach ?? model.meets.share))}
            onChange={(percent) => set({ reach: percent / 100 })}
          />
        )}
        <Slider
          label="support foot gives"
          unit="%"
          min={0}
          max={100}
          step={5}
          value={Math.round(100 * asked.give)}
          onChange={(percent) => set({ give: percent / 100 })}
        />
        <Slider
          label="elbow or knee stands off"
          unit="°"
          min={-10}
          max={40}
          step={2}
          value={Math.round((180 / Math.PI) * asked.flare)}
          onChange={(angle) => set({ flare: (angle * Math.PI) / 180 })}
        />
        <Slider
          label="step faster"
          unit="cm/s"
          min={-100}
          max={200}
          step={10}
          value={Math.round(100 * asked.step)}
          onChange={(speed) => set({ step: speed / 100 })}
        />
      </div>
      <Button className="mt-4" onClick={() => setAsked(AS_IT_IS)}>
        As it was
      </Button>
    </>
  );
}

function sentence(before: SimulatedStrike, now: SimulatedStrike): string {
  if (!now.hasArrived) return 'So it would not arrive.';
  const percent = Math.round(100 * (now.momentum / before.momentum - 1));
  if (percent === 0) return 'The strike as it was thrown.';
  return percent > 0 ? `${percent} % more momentum.` : `${-percent} % less momentum.`;
}

function Slider({
  label,
  unit,
  value,
  onChange,
  ...range
}: {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="grid grid-cols-[11rem_1fr_5rem] items-center gap-3">
      <span className="first-letter:uppercase">{label}</span>
      <input
        type="range"
        {...range}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        className="accent-ink"
      />
      <span className="text-right">{inManner(`${value} ${unit}`)}</span>
    </label>
  );
}

function useFitted(strike: StrikeDocument): Start {
  const analysis = useAnalysis();
  const student = useBench((state) => state.student);
  const [start, setStart] = useState<Start>({ kind: 'fitting' });
  const events = analysis?.events;
  const readings = analysis?.readings;
  useEffect(() => {
    if (!events || !readings) return;
    let isStale = false;
    const technique = techniqueById(strike.technique);
    const run = async () => {
      const body = { mass: student.massKg, height: student.heightM };
      const seen = await chainModel().observe(technique, events, readings, body);
      if (isAbsent(seen)) return { kind: 'cannot', why: seen.absent } as const;
      return { kind: 'fitted', fitted: await chainModel().fit(seen.model, seen.observed) } as const;
    };
    run()
      .then((found) => !isStale && setStart(found))
      .catch(() => !isStale && setStart({ kind: 'cannot', why: 'The model did not start.' }));
    return () => {
      isStale = true;
    };
  }, [strike.technique, events, readings, student]);
  return start;
}

/** The strike thrown with the changes; what was shown before stays until it is. */
function useThrown(fitted: Fitted | null, asked: WhatIf): SimulatedStrike | null {
  const [result, setResult] = useState<SimulatedStrike | null>(null);
  useEffect(() => {
    if (!fitted) return;
    let isStale = false;
    void chainModel()
      .whatIf(fitted.model, asked)
      .then((simulated) => !isStale && setResult(simulated));
    return () => {
      isStale = true;
    };
  }, [fitted, asked]);
  return result;
}

/** What each link is worth, once it is known. */
function useWorth(fitted: Fitted | null): readonly (number | null)[] | null {
  const [worth, setWorth] = useState<readonly (number | null)[] | null>(null);
  useEffect(() => {
    if (!fitted) return;
    let isStale = false;
    void chainModel()
      .worthOfLinks(fitted.model)
      .then((found) => !isStale && setWorth(found));
    return () => {
      isStale = true;
    };
  }, [fitted]);
  return worth;
}
