'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Key } from '@/ui/button';
import type { FloorRow } from './rows';

/** The students as rows; arrow keys choose one, Enter does what is next, F films, B opens the bench, / searches. */
export function FloorTable({ rows }: { rows: readonly FloorRow[] }) {
  const router = useRouter();
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState(0);
  const search = useRef<HTMLInputElement>(null);
  const shown = rows.filter((row) => row.name.toLowerCase().includes(query.trim().toLowerCase()));
  const row = shown[Math.min(chosen, shown.length - 1)];
  const move = (by: number) =>
    setChosen((at) => Math.min(shown.length - 1, Math.max(0, Math.min(at, shown.length - 1) + by)));

  useHotkeys('down', () => move(1), { preventDefault: true });
  useHotkeys('up', () => move(-1), { preventDefault: true });
  useHotkeys('enter', () => row && router.push(row.next.href), {
    ignoreEventWhen: (event) => (event.target as HTMLElement).closest('a, button') !== null,
  });
  useHotkeys('b', () => row?.benchHref && router.push(row.benchHref));
  useHotkeys('f', () => row && router.push(`/capture?student=${row.id}`));
  useHotkeys('s', () => row && router.push(`/students/${row.id}`));
  useHotkeys('/', () => search.current?.focus(), { preventDefault: true });

  return (
    <>
      <label className="mt-6 mb-2 flex w-64 items-center gap-2 border-b border-soft text-sm">
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
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b-2 border-ink text-left text-sm text-soft">
            <th className="py-2 pl-3 font-semibold">Student</th>
            <th className="py-2 font-semibold">Working on</th>
            <th className="py-2 font-semibold">Cue</th>
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
              <td className="relative w-56 py-3.5 pl-3">
                <span className="absolute inset-y-0 left-0 w-1 bg-transparent group-aria-[current]:bg-now" />
                <Link
                  href={`/students/${one.id}`}
                  className="text-base font-semibold hover:underline"
                >
                  {one.name}
                </Link>
                <div className="text-sm text-soft">{one.about}</div>
              </td>
              <td className="w-36 py-3.5">{one.workingOn}</td>
              <td className="py-3.5 pr-6">
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
              <td className="w-56 py-3.5 pr-3 text-right">
                <Link href={one.next.href} className="text-base font-semibold hover:underline">
                  {one.next.text}
                </Link>
                <div className="text-sm text-soft">{one.next.note}</div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-5 text-sm text-soft">
        Keys: ↑ ↓ choose, Enter does the next thing, F films, B opens the bench, S the student.
      </p>
      {shown.length === 0 && <p className="py-8 text-soft">Nobody of that name on the Floor.</p>}
    </>
  );
}
