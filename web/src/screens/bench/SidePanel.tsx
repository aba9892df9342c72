'use client';

import { Tabs } from 'radix-ui';
import type { Cue, Decision } from '@/data/findings';
import { wordsFor } from '@sinew/core/events/events';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { Key } from '@/ui/button';
import { strikeOf, useBench } from './benchStore';
import { StrikeChooser } from './BenchTop';
import { nextUnmarked } from './commands';
import { CueOfTheDay } from './CueOfTheDay';
import { EVENT_KEY } from './lanes';
import { Leaks } from './Leaks';
import { ReadingsTable } from './ReadingsTable';
import { SetUp } from './SetUp';
import { useAnalysis } from './useAnalysis';

const TABS = [
  ['leaks', 'Leaks'],
  ['readings', 'Readings'],
  ['set-up', 'Set-up'],
] as const;

/** Right of the picture: what is wrong, what was measured, how the clip is set up, and the cue. */
export function SidePanel({
  decisions,
  cues,
}: {
  decisions: Readonly<Record<string, readonly Decision[]>>;
  cues: readonly Cue[];
}) {
  const strike = useBench(strikeOf);
  const analysis = useAnalysis();
  if (!strike || !analysis) {
    return (
      <section className="overflow-auto p-6">
        <h2 className="mb-1 font-serif text-2xl">Which strike is it?</h2>
        <p className="mb-4 text-soft">Name it, then mark its instants with the keys 1 to 8.</p>
        <StrikeChooser />
      </section>
    );
  }
  const next = nextUnmarked(strike);
  const words = next && wordsFor(next, techniqueById(strike.technique));
  const cue = cues.find((one) => one.technique === strike.technique);
  return (
    <section className="flex min-h-0 flex-col">
      <Tabs.Root defaultValue="leaks" className="flex min-h-0 flex-1 flex-col">
        <Tabs.List aria-label="Strike" className="flex gap-6 border-b border-ink px-5">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px h-10 border-b-4 border-transparent font-semibold text-soft data-[state=active]:border-ink data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {next && words && (
          <p className="flex items-center gap-2 border-b border-rule bg-tint px-5 py-2">
            <Key>{EVENT_KEY[next]}</Key>
            <span>
              <strong>{words.name}</strong>: {words.meaning}
            </span>
          </p>
        )}
        <Tabs.Content value="leaks" className="min-h-0 flex-1 overflow-auto px-5 py-4">
          <Leaks analysis={analysis} strike={strike} decisions={decisions[strike.id] ?? []} />
        </Tabs.Content>
        <Tabs.Content value="readings" className="min-h-0 flex-1 overflow-auto px-5 py-3">
          <ReadingsTable readings={analysis.readings} />
        </Tabs.Content>
        <Tabs.Content value="set-up" className="min-h-0 flex-1 overflow-auto px-5 py-4">
          <SetUp strike={strike} />
        </Tabs.Content>
      </Tabs.Root>
      {cue && <CueOfTheDay key={cue.id + cue.text} cue={cue} />}
    </section>
  );
}
