'use client';

import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { flushSync } from 'react-dom';
import { useStore } from 'zustand';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { wordsFor } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { inManner } from '@/manner/manner';
import { Key } from '@/ui/button';
import { useCommands } from '@/ui/commands/registry';
import { queue } from '@/tracking/queue';
import { stepName } from '@/tracking/words';
import { strikeOf, useBench } from '../document/benchStore';
import type { BenchProps } from '../benchProps';
import { StrikeChooser } from '../BenchTop';
import { nextUnmarked } from '../document/edits';
import { AutomaticAsked } from '../document/AutomaticStrikes';
import { BodyTab } from './body/BodyTab';
import { CueOfTheDay } from './faults/CueOfTheDay';
import { FilmTab } from './film/FilmTab';
import { NOTE_FIELD } from './film/NotesHere';
import { EVENT_KEY } from '../strip/lanes';
import { EyeTab } from './eye/EyeTab';
import { FaultsTab } from './faults/FaultsTab';
import { SetTab } from './set/SetTab';
import { WhatIfTab } from './what-if/WhatIfTab';
import { ReadingsTable } from './readings/ReadingsTable';
import { SetUp } from './set-up/SetUpTab';
import { StrikesFound } from './StrikesFound';
import { ViewDoubt } from './ViewDoubt';
import { useAnalysis } from '../document/useAnalysis';
import { useTracked } from '../document/useTracked';

const TABS = [
  ['faults', 'Leaks'],
  ['set', 'Set'],
  ['eye', 'Eye'],
  ['what-if', 'What-if'],
  ['readings', 'Readings'],
  ['body', 'Body'],
  ['film', 'Film'],
  ['set-up', 'Set-up'],
] as const;

/** Right of the picture: what is wrong, what was measured, what the film is worth, how it is set up. */
export function SidePanel({
  decisions,
  cues,
  setups,
  others,
  worn,
  deeds,
}: Pick<BenchProps, 'decisions' | 'cues' | 'setups' | 'others' | 'worn' | 'deeds'>) {
  const strike = useBench(strikeOf);
  const analysis = useAnalysis();
  const [tab, setTab] = useState('faults');
  const { base } = useTracked();
  const isLooking = useIsLooking();
  useCommands(() => [
    {
      id: 'note',
      keys: ['Shift+n'],
      words: 'a note on this strike',
      group: 'Strike',
      run: () => {
        flushSync(() => setTab('film'));
        document.getElementById(NOTE_FIELD)?.focus();
      },
    },
  ]);
  const cue = strike && cues.find((one) => one.technique === strike.technique);
  return (
    <section className="flex min-h-0 flex-col max-md:order-2 max-md:border-t max-md:border-ink">
      <ViewDoubt />
      <StrikesFound />
      <AutomaticAsked />
      <Tabs.Root value={tab} onValueChange={setTab} className="flex min-h-0 flex-1 flex-col">
        <Tabs.List
          aria-label="Strike"
          className="flex gap-4 border-b border-ink px-5 max-lg:overflow-x-auto max-md:px-4"
        >
          {TABS.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px h-10 border-b-4 border-transparent shrink-0 font-semibold whitespace-nowrap text-soft data-[state=active]:border-ink data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {strike && !isLooking && <NextMark strike={strike} />}
        <Tabs.Content
          value="faults"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4"
        >
          {isLooking && !isByHand(strike) ? (
            <Looking isNamed={strike !== null} />
          ) : strike && analysis ? (
            <FaultsTab
              analysis={analysis}
              strike={strike}
              decisions={decisions[strike.id] ?? []}
              onSet={() => setTab('set')}
            />
          ) : (
            <NameIt />
          )}
        </Tabs.Content>
        <Tabs.Content value="set" className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4">
          {strike ? (
            <SetTab key={strike.id} strike={strike} decisions={decisions[strike.id] ?? []} />
          ) : (
            <NameIt />
          )}
        </Tabs.Content>
        <Tabs.Content value="eye" className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4">
          {strike ? <EyeTab key={strike.id} strike={strike} /> : <NameIt />}
        </Tabs.Content>
        <Tabs.Content
          value="what-if"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4"
        >
          {strike ? <WhatIfTab key={strike.id} strike={strike} /> : <NameIt />}
        </Tabs.Content>
        <Tabs.Content
          value="readings"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-3"
        >
          {analysis ? (
            <>
              {analysis.assumed.isScale && <AssumedScale />}
              <ReadingsTable
                readings={analysis.readings}
                origin={{ isTracked: base !== null, isAutomatic: strike?.isAutomatic === true }}
              />
            </>
          ) : (
            <NameIt />
          )}
        </Tabs.Content>
        <Tabs.Content
          value="body"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4"
        >
          <BodyTab worn={worn} />
        </Tabs.Content>
        <Tabs.Content
          value="film"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4"
        >
          <FilmTab others={others} space={analysis?.space ?? null} deeds={deeds} />
        </Tabs.Content>
        <Tabs.Content
          value="set-up"
          className="min-h-0 flex-1 px-5 max-md:px-4 md:overflow-auto py-4"
        >
          <SetUp strike={strike} setups={setups} />
        </Tabs.Content>
      </Tabs.Root>
      {cue && <CueOfTheDay key={cue.id + cue.text} cue={cue} strikeId={strike.id} />}
    </section>
  );
}

/** The coach has marked it: there is something to say of it whatever else is still looked for. */
const isByHand = (strike: StrikeDocument | null) =>
  strike !== null && !strike.isAutomatic && Object.keys(strike.marks).length > 0;

/**
 * The body is being looked for in this film, and will be until it is found or somebody stops it. Points in space from
 * elsewhere tell all that it could.
 */
function useIsLooking(): boolean {
  const isWanted = useBench(({ job, series }) => job?.state === 'wanted' && series === null);
  const isOff = useStore(queue, (state) => state.isOff);
  return isWanted && !isOff;
}

/** While the body is looked for there is no verdict; a coach who will not wait names the strike. */
function Looking({ isNamed }: { isNamed: boolean }) {
  const clipId = useBench((state) => state.clip.id);
  const current = useStore(queue, (state) => state.current);
  const step = current?.job.clipId === clipId ? current.step : null;
  const left = step?.progress.left ?? null;
  return (
    <>
      <div role="status">
        <h2 className="font-serif text-2xl">Still looking.</h2>
        <p className="mt-1 mb-4 text-soft">
          {step
            ? `${stepName(step)}${left === null ? '' : `, ${Math.ceil(left)} s left`}.`
            : current
              ? 'Another film comes first.'
              : 'It begins in a moment.'}{' '}
          Strikes, instants and leaks stand here when it is done; you need not wait.{' '}
          {isNamed
            ? 'To mark it yourself, use the keys 1 to 8.'
            : 'To mark it yourself, name the strike.'}
        </p>
      </div>
      {!isNamed && <StrikeChooser />}
    </>
  );
}

/** Metres that nobody has set in the picture are the program's own. */
function AssumedScale() {
  const height = useBench((state) => state.student.heightM);
  return (
    <p className="mb-2 border-l-4 border-rule pl-3 text-soft">
      Metres are assumed from the student’s height of{' '}
      {inManner(`${Math.round(100 * (height ?? 0))} cm`)}, until a known length (L) or a rectangle
      (R) is set.
    </p>
  );
}

/** Which instant to mark next, and its key. */
function NextMark({ strike }: { strike: StrikeDocument }) {
  const next = nextUnmarked(strike);
  // What was found by itself is first to be looked at.
  if (!next || strike.isAutomatic) return null;
  const { name, meaning } = wordsFor(next, techniqueById(strike.technique));
  return (
    <p className="flex items-center gap-2 border-b border-rule bg-tint px-5 py-2">
      <Key>{EVENT_KEY[next]}</Key>
      <span>
        <strong>{name}</strong>: {meaning}
      </span>
    </p>
  );
}

function NameIt() {
  const survey = useBench((state) => state.survey);
  return (
    <>
      <h2 className="mb-1 font-serif text-2xl">Which strike is it?</h2>
      {survey.kind === 'running' && (
        <p className="mb-2 text-soft" role="status">
          Looking for strikes, {Math.round(100 * survey.progress.share)} %. You need not wait.
        </p>
      )}
      <p className="mb-4 text-soft">Name it, then mark its instants with the keys 1 to 8.</p>
      <StrikeChooser />
    </>
  );
}
