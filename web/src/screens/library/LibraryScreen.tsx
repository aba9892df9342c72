'use client';

import { Tabs } from 'radix-ui';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { useRouter } from 'next/navigation';
import type { Catalogue } from '@sinew/core/judge/fault/schema';
import type { Agreement } from '@sinew/core/judge/library/agreement';
import { touchedBy, type Edits } from '@sinew/core/judge/library/edits';
import type { LibraryEntry } from '@/data/gym/library';
import { LOST } from '@/ui/askDialog';
import { TextField } from '@/ui/field';
import { MainBar } from '@/ui/mainBar';
import { useCoachName } from '@/ui/asker';
import { change } from './actions';
import type { Change } from './change';
import { Drills } from './Drills';
import { effectInWords } from './effect';
import { History } from './History';
import { FaultList } from './FaultList';
import { Schools } from './Schools';
import { Techniques } from './Techniques';
import { Words } from './Words';
import { ask, wordsOf } from '@/api/client';
import { TAKE_LIBRARY } from '@/api/endpoints';

const TABS = ['Leaks', 'Schools', 'Drills', 'Strikes', 'Words', 'History'] as const;
/** Who changes things is remembered in this browser. */

/** Which faults a choice of school has a say in. */
function inWordsOf({ faults }: Catalogue, key: string): string {
  const names = faults
    .filter(({ cases }) => cases.some(({ when }) => when?.[key]))
    .map(({ name }) => name);
  return names.length > 0
    ? `From now on judged otherwise: ${names.join(', ')}.`
    : 'Kept. No leak depends on it; it is the order, or what your eye is asked.';
}

/** What a file holds; what is no JSON is refused by the server, in its own words. */
function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}

/** What strikes are judged by, to read and to make one's own. */
export function LibraryScreen({
  catalogue,
  usual,
  edits,
  history,
  agreements,
}: {
  catalogue: Catalogue;
  /** As it comes. */
  usual: Catalogue;
  edits: Edits;
  history: readonly LibraryEntry[];
  /** How the coaches have decided where a leak was found, by leak. */
  agreements: Readonly<Record<string, Agreement>>;
}) {
  const router = useRouter();
  const { by, setBy, isKnown } = useCoachName();
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const name = (value: string) => {
    setBy(value);
    setProblem(null);
  };
  const make: Change = async (wanted, said = 'Kept.') => {
    try {
      const outcome = await change(by, wanted, touchedBy(edits, wanted));
      const why = outcome.kind === 'wrong' ? outcome.why : null;
      const isUnnamed = why !== null && !by.trim();
      setProblem(isUnnamed ? why : null);
      // What was changed may be far below it.
      if (isUnnamed) field.current?.focus();
      else if (why) toast(why);
      if (outcome.kind === 'kept') toast(said, { description: effectInWords(outcome.effect) });
      return outcome.kind === 'kept';
    } catch {
      toast(LOST);
      return false;
    }
  };
  const takeOver = async (file: File | undefined) => {
    if (!file) return;
    try {
      await ask(TAKE_LIBRARY, [by], jsonIn(await file.text()));
      toast('The library is taken over.');
    } catch (error) {
      toast(wordsOf(error));
    }
    router.refresh();
  };
  return (
    <>
      <MainBar here="Library" />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-16">
        <div className="flex flex-wrap items-end justify-between gap-6">
          <h1 className="font-serif text-[2.6rem] leading-none">What a strike is judged by.</h1>
          <div className="flex flex-wrap items-end gap-5">
            {!isKnown && (
              <div className="w-52">
                <TextField
                  ref={field}
                  label="Changed by"
                  value={by}
                  maxLength={60}
                  placeholder="your name"
                  error={problem ?? undefined}
                  onChange={(event) => name(event.target.value)}
                />
              </div>
            )}
            <a
              href="/api/library"
              className="inline-flex h-10 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
            >
              Save as a file
            </a>
            <label className="inline-flex h-10 cursor-pointer items-center border border-ink px-3.5 font-semibold focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink hover:bg-tint">
              Take from a file
              <input
                type="file"
                accept="application/json,.json"
                className="sr-only"
                onChange={(event) => {
                  void takeOver(event.target.files?.[0]);
                  event.target.value = '';
                }}
              />
            </label>
          </div>
        </div>
        <Tabs.Root defaultValue="Leaks" className="mt-6">
          <Tabs.List
            aria-label="Library"
            className="flex gap-6 overflow-x-auto border-b border-ink"
          >
            {TABS.map((tab) => (
              <Tabs.Trigger
                key={tab}
                value={tab}
                className="-mb-px h-10 border-b-4 border-transparent font-semibold text-soft data-[state=active]:border-ink data-[state=active]:text-ink"
              >
                {tab}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="Leaks">
            <FaultList
              catalogue={catalogue}
              usual={usual}
              edits={edits}
              agreements={agreements}
              make={make}
            />
          </Tabs.Content>
          <Tabs.Content value="Schools">
            <Schools
              chosen={edits.school}
              wait="usual"
              onChoose={(key, choice) =>
                void make({ kind: 'school', key, choice }, inWordsOf(catalogue, key))
              }
            />
          </Tabs.Content>
          <Tabs.Content value="Drills">
            <Drills catalogue={catalogue} edits={edits} make={make} />
          </Tabs.Content>
          <Tabs.Content value="Strikes">
            <Techniques catalogue={catalogue} />
          </Tabs.Content>
          <Tabs.Content value="Words">
            <Words />
          </Tabs.Content>
          <Tabs.Content value="History">
            <History entries={history} />
          </Tabs.Content>
        </Tabs.Root>
      </main>
    </>
  );
}
