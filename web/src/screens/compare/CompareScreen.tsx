'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import type { Difference } from '@sinew/core/train/progress/compare';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { pastDay } from '@/data/database/today';
import type { StrikeToCompare } from '@/data/finding/comparing';
import { Button } from '@/ui/button';
import { PaceButtons } from '@/ui/pace';
import { StudentBar } from '@/ui/studentBar';
import { Differences } from './Differences';
import { FrameAt } from './FrameAt';
import { usePlay } from './usePlay';
import { Overlaid } from './Overlaid';
import { FROM, TO } from './stretch';
import { TwoChains } from './TwoChains';
import { stepping } from '@/ui/commands/stepping';
import { useCommands } from '@/ui/commands/registry';

/** Two strikes aligned at contact: one scrubber, both chains, and what has really changed. */
export function CompareScreen({
  student,
  then,
  now,
  ofStrikes,
  ofSets,
}: {
  student: { readonly id: string; readonly name: string };
  then: StrikeToCompare;
  now: StrikeToCompare;
  ofStrikes: readonly Difference[];
  /** Null where one of them stands alone. */
  ofSets: readonly Difference[] | null;
}) {
  const [time, setTime] = useState(0);
  const [isOverlaid, setOverlaid] = useState(false);
  const [isOfSets, setOfSets] = useState(ofSets !== null);
  const both = then.film !== null && now.film !== null;
  // One step is a frame of the film that has more of them.
  const step = useMemo(() => Math.min(...[then, now].map(frameLength)), [then, now]);
  const play = usePlay(time, setTime);
  /** By hand: what plays is stopped. */
  const move = (to: (at: number) => number) => {
    play.setPlaying(false);
    setTime((at) => Math.min(TO, Math.max(FROM, to(at))));
  };
  const scrub = (at: number) => move(() => at);
  const go = (by: number) => move((at) => at + by * step);
  useCommands(() => [
    ...stepping(go),
    {
      id: 'contact',
      keys: ['Home'],
      words: 'contact',
      group: 'Through the film',
      run: () => scrub(0),
    },
    {
      id: 'overlay',
      keys: ['o'],
      words: 'one over the other, or side by side',
      group: 'Compare',
      run: () => setOverlaid((old) => both && !old),
    },
  ]);
  const differences = isOfSets && ofSets ? ofSets : ofStrikes;
  return (
    <>
      <StudentBar student={student} here={null} />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-6 pb-16">
        <div className="flex flex-wrap items-end justify-between gap-4">
          <h1 className="font-serif text-[2.2rem] leading-tight">{headline(differences)}</h1>
          <div className="flex flex-wrap gap-3">
            {both && (
              <Button hint="O" aria-pressed={isOverlaid} onClick={() => setOverlaid(!isOverlaid)}>
                {isOverlaid ? 'Side by side' : 'Overlaid'}
              </Button>
            )}
            <Link
              href={`/compare?a=${now.strike.id}&b=${then.strike.id}`}
              className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
            >
              Swap
            </Link>
          </div>
        </div>
        <section aria-label="Pictures" className="mt-4">
          {isOverlaid && then.film && now.film ? (
            <div className="mx-auto max-w-[860px]">
              <Overlaid then={then.film} now={now.film} time={time} />
            </div>
          ) : (
            <div className="grid grid-cols-2 gap-2">
              <Side of={then} time={time} name="Then" />
              <Side of={now} time={time} name="Now" />
            </div>
          )}
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
            <Button
              hint="Space"
              aria-pressed={play.isPlaying}
              onClick={() => play.setPlaying(!play.isPlaying)}
            >
              {play.isPlaying ? 'Stop' : 'Play'}
            </Button>
            <PaceButtons pace={play.pace} onPace={play.setPace} />
            <label className="flex min-w-60 flex-1 items-center gap-4">
              <input
                type="range"
                aria-label="Time from contact"
                aria-valuetext={timeWords(time)}
                min={FROM}
                max={TO}
                step={step}
                value={time}
                onChange={(event) => scrub(Number(event.target.value))}
                className="w-full accent-now"
              />
              <span className="w-40 whitespace-nowrap">{timeWords(time)}</span>
            </label>
          </div>
        </section>
        <div className="mt-5 grid gap-x-8 gap-y-6 lg:grid-cols-2">
          <section aria-label="Chains">
            <TwoChains
              technique={techniqueById(now.strike.technique)}
              then={then.film}
              now={now.film}
              time={time}
              onTime={scrub}
            />
          </section>
          <section aria-label="Differences">
            {ofSets && (
              <div role="group" aria-label="Compare" className="mb-2 flex gap-5">
                {[true, false].map((value) => (
                  <button
                    key={String(value)}
                    type="button"
                    aria-pressed={isOfSets === value}
                    onClick={() => setOfSets(value)}
                    className="border-b-2 border-transparent font-semibold text-soft aria-pressed:border-ink aria-pressed:text-ink"
                  >
                    {value
                      ? `The sets, ${then.set.length} and ${now.set.length} strikes`
                      : 'These two strikes'}
                  </button>
                ))}
              </div>
            )}
            <Differences differences={differences} />
          </section>
        </div>
      </main>
    </>
  );
}

function frameLength({ film }: StrikeToCompare): number {
  const times = film?.times ?? [];
  return times.length > 1 ? (times[times.length - 1]! - times[0]!) / (times.length - 1) : 0.01;
}

function timeWords(time: number): string {
  const ms = Math.round(time * 1000);
  if (ms === 0) return 'at contact';
  return ms < 0 ? `${-ms} ms before contact` : `${ms} ms after contact`;
}

function headline(differences: readonly Difference[]): string {
  const first = differences[0];
  if (!first || 'notComparable' in first.change) return 'These two cannot be compared.';
  const count = (verdict: string) =>
    differences.filter(({ change }) => 'verdict' in change && change.verdict === verdict).length;
  const [better, worse, changed] = ['better', 'worse', 'changed'].map(count) as [
    number,
    number,
    number,
  ];
  if (better + worse + changed === 0) {
    return count('few') > 0
      ? 'Two strikes differ; three of each show a change.'
      : 'No change that can be claimed.';
  }
  const parts = [
    better > 0 && `${better} better`,
    worse > 0 && `${worse} worse`,
    changed > 0 && `${changed} otherwise changed`,
  ].filter(Boolean);
  const sentence = `${parts.join(', ')}; the rest is noise.`;
  return sentence[0]!.toUpperCase() + sentence.slice(1);
}

function Side({ of, time, name }: { of: StrikeToCompare; time: number; name: string }) {
  const { strike, fileName } = of;
  const facts = [
    VIEW_GUIDE[strike.view].name.toLowerCase(),
    strike.intent ? INTENT_NAMES[strike.intent] : 'how hard: not said',
  ];
  return (
    <figure>
      {of.film ? (
        <FrameAt film={of.film} time={time} label={name.toLowerCase()} />
      ) : (
        <p className="flex aspect-video items-center justify-center bg-shade px-6 text-center">
          No picture: the film is gone, or contact is not known. What was measured is compared.
        </p>
      )}
      <figcaption className="mt-1">
        <strong>{name}</strong>, {pastDay(strike.day)},{' '}
        <Link
          href={`/bench/${strike.clipId}?strike=${strike.id}`}
          className="underline underline-offset-4"
        >
          {fileName}
        </Link>
        <span className="block text-sm text-soft">{facts.join(', ')}</span>
      </figcaption>
    </figure>
  );
}
