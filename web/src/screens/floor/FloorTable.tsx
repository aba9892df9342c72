'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { Button, Key } from '@/ui/button';
import { ChainBars } from '@/ui/chainBars';
import { filmOf, Thumb } from '@/ui/thumb';
import type { FloorRow } from './rows';
import { useCommands } from '@/ui/commands/registry';

/** Everybody, those who wait for the coach, or one class. */
const EVERYBODY = '';
const DUE = 'due ';
/** Nobody walks past more than so many; the others are found by name or class. */
const AT_ONCE = 40;

/** The students as rows; arrow keys choose one, Enter does what is next. */
export function FloorTable({ rows }: { rows: readonly FloorRow[] }) {
  const router = useRouter();
  const [query, setQuery] = useState('');
  const [filter, setFilter] = useState(EVERYBODY);
  const [chosen, setChosen] = useState(0);
  const [isWhole, setWhole] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const groups = useMemo(
    () => [...new Set(rows.map(({ classGroup }) => classGroup).filter(Boolean))].sort(),
    [rows],
  );
  const due = rows.filter(({ isDue }) => isDue).length;
  const wanted = query.trim().toLowerCase();
  const matching = rows.filter(
    (row) =>
      row.name.toLowerCase().includes(wanted) &&
      (filter === EVERYBODY || (filter === DUE ? row.isDue : row.classGroup === filter)),
  );
  const shown = isWhole ? matching : matching.slice(0, AT_ONCE);
  const row = shown[Math.min(chosen, shown.length - 1)];
  const move = (by: number) =>
    setChosen((at) => Math.min(shown.length - 1, Math.max(0, Math.min(at, shown.length - 1) + by)));

  const ofRow = (key: string, words: string, path: (id: string) => string) => ({
    id: `row ${key}`,
    keys: [key],
    words,
    group: 'The student in hand',
    run: () => row && router.push(path(row.id)),
  });
  useCommands(() => [
    {
      id: 'row before',
      keys: ['ArrowUp'],
      words: 'the student before',
      group: 'Floor',
      run: () => move(-1),
    },
    {
      id: 'row after',
      keys: ['ArrowDown'],
      words: 'the next student',
      group: 'Floor',
      run: () => move(1),
    },
    {
      id: 'find',
      keys: ['/'],
      words: 'find a student',
      group: 'Floor',
      run: () => search.current?.focus(),
    },
    {
      id: 'due',
      keys: ['d'],
      words: 'only those who wait for you',
      group: 'Floor',
      run: () => setFilter((now) => (now === DUE ? EVERYBODY : DUE)),
    },
    {
      id: 'row next',
      keys: ['Enter'],
      words: 'do what is next for them',
      group: 'The student in hand',
      run: () => row && router.push(row.next.href),
    },
    {
      id: 'row bench',
      keys: ['b'],
      words: 'bench',
      group: 'The student in hand',
      run: () => row?.benchHref && router.push(row.benchHref),
    },
    ofRow('f', 'film', (id) => `/capture?student=${id}`),
    ofRow('s', 'films', (id) => `/students/${id}`),
    ofRow('w', 'work', (id) => `/students/${id}/work`),
    ofRow('l', 'ledger', (id) => `/students/${id}/ledger`),
  ]);

  return (
    <>
      <div className="mt-6 mb-2 flex flex-wrap items-center gap-x-7 gap-y-2 text-sm">
        <label className="flex w-64 items-center gap-2 border-b border-soft">
          <span className="text-soft">Find</span>
          <input
            ref={search}
            value={query}
            onChange={(event) => setQuery(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.blur()}
            className="h-9 w-full bg-transparent outline-none"
          />
          <Key>/</Key>
        </label>
        <div role="group" aria-label="Show" className="flex flex-wrap items-center gap-5">
          <Filter now={filter} value={EVERYBODY} onChoose={setFilter}>
            Everybody, {rows.length}
          </Filter>
          <Filter now={filter} value={DUE} onChoose={setFilter}>
            Waiting for you, {due} <Key>D</Key>
          </Filter>
          {groups.map((name) => (
            <Filter key={name} now={filter} value={name} onChoose={setFilter}>
              {name}
            </Filter>
          ))}
        </div>
      </div>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b-2 border-ink text-left text-sm text-soft">
            <th className="py-2 pl-3 font-semibold">Student</th>
            <th className="py-2 font-semibold max-md:hidden">
              <span className="sr-only">Newest film</span>
            </th>
            <th className="py-2 font-semibold max-lg:hidden">Working on</th>
            <th className="py-2 font-semibold max-md:hidden">Chain, feet to fist</th>
            <th className="py-2 font-semibold max-md:hidden">Cue</th>
            <th className="py-2 pr-3 text-right font-semibold">Next</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((one, index) => (
            <tr
              key={one.id}
              aria-current={one === row || undefined}
              onMouseEnter={() => setChosen(index)}
              className="group border-b border-rule aria-[current]:bg-tint"
            >
              <td className="relative py-3 pl-3 wrap-anywhere md:w-52">
                <span className="absolute inset-y-0 left-0 w-1 bg-transparent group-aria-[current]:bg-now" />
                <Link
                  href={`/students/${one.id}`}
                  title={one.name}
                  className="line-clamp-2 text-base font-semibold hover:underline"
                >
                  <bdi>{one.name}</bdi>
                </Link>
                <div className="text-sm text-soft">{one.about}</div>
                {/* Where the columns beside it have no room. */}
                <div className="font-serif text-xl leading-snug md:hidden">{one.cues[0]?.text}</div>
              </td>
              <td className="w-28 py-2 pr-4 max-md:hidden">
                {one.film && (
                  <Link href={`/bench/${one.film.clipId}`} tabIndex={-1} aria-hidden>
                    <Thumb film={filmOf(one.film.clipId)} time={one.film.time} className="w-24" />
                  </Link>
                )}
              </td>
              <td className="w-32 py-3 max-lg:hidden">{one.workingOn}</td>
              <td className="w-36 py-3 max-md:hidden">
                <ChainBars links={one.links} />
              </td>
              <td className="py-3 pr-6 max-md:hidden">
                {one.cues.length === 0 ? (
                  <span className="font-serif text-xl text-soft">No cue yet</span>
                ) : (
                  one.cues.map((cue) => (
                    <div key={cue.technique} className="font-serif text-xl leading-snug">
                      {cue.text}
                      {cue.isInjury && (
                        <span className="ml-2 font-sans text-sm text-now">no power yet</span>
                      )}
                      {one.cues.length > 1 && (
                        <span className="ml-2 font-sans text-sm text-soft">{cue.technique}</span>
                      )}
                    </div>
                  ))
                )}
              </td>
              <td className="w-36 py-3 pr-3 text-right md:w-60">
                <Link href={one.next.href} className="text-base font-semibold hover:underline">
                  {one.next.text}
                </Link>
                <div className="text-sm text-soft">{one.next.note}</div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {matching.length > shown.length && (
        <Button className="mt-4" onClick={() => setWhole(true)}>
          {matching.length - shown.length} more
        </Button>
      )}
      {shown.length === 0 && (
        <p className="py-8 text-soft">
          {query ? 'Nobody of that name here.' : 'Nobody waits for you.'}
        </p>
      )}
      <p className="mt-5 text-sm text-soft max-md:hidden">
        Keys: ↑ ↓ choose, Enter does the next thing, F films, B opens the bench, W the work, L the
        ledger, S the student.
      </p>
    </>
  );
}

function Filter({
  now,
  value,
  onChoose,
  children,
}: {
  now: string;
  value: string;
  onChoose: (value: string) => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={now === value}
      onClick={() => onChoose(value)}
      className="h-9 border-b-2 border-transparent font-semibold text-soft aria-pressed:border-ink aria-pressed:text-ink"
    >
      {children}
    </button>
  );
}
