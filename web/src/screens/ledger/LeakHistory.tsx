'use client';

import Link from 'next/link';
import { useState } from 'react';
import { techniqueById } from '@sinew/core/technique/catalogue';
import type { Leak } from '@/data/leaks';
import { CloseLeak } from '@/screens/work/CloseLeak';
import { Button } from '@/ui/button';

type Named = Leak & { readonly name: string };

const STATE = { open: 'open', working: 'in work', closed: 'closed' } as const;

/** Leaks as they were opened, worked and closed. */
export function LeakHistory({ studentId, leaks }: { studentId: string; leaks: readonly Named[] }) {
  const [closing, setClosing] = useState<Named | null>(null);
  return (
    <section aria-label="Leaks">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Leaks</h2>
      {leaks.length === 0 && <p className="py-2 text-soft">None accepted yet.</p>}
      <ul>
        {leaks.map((leak) => (
          <li
            key={`${leak.technique} ${leak.fault} ${leak.closedAt}`}
            className="border-b border-rule py-2"
          >
            <div className="flex items-baseline justify-between gap-4">
              <span className={leak.state === 'closed' ? 'text-soft' : 'font-semibold'}>
                {leak.name}
              </span>
              <span className="text-sm whitespace-nowrap text-soft">
                {techniqueById(leak.technique).name}, {STATE[leak.state]}
              </span>
            </div>
            <p className="text-sm text-soft">
              Opened {leak.openedAt.slice(0, 10)}
              {leak.closedAt &&
                `, closed ${leak.closedAt.slice(0, 10)}: ${leak.closedBecause}`}.{' '}
              <Link
                href={`/bench/${leak.clipId}?strike=${leak.strikeId}`}
                className="underline underline-offset-4"
              >
                See it
              </Link>{' '}
              {leak.state !== 'closed' && (
                <Button
                  weight="quiet"
                  className="ml-3 !min-h-0 text-sm"
                  onClick={() => setClosing(leak)}
                >
                  It is gone
                </Button>
              )}
            </p>
          </li>
        ))}
      </ul>
      {closing && (
        <CloseLeak
          leak={{ studentId, technique: closing.technique, fault: closing.fault }}
          title={`“${closing.name}” is gone?`}
          text="Its cue and its work end; the ledger keeps when and why."
          action="Close the leak"
          onDone={() => setClosing(null)}
        />
      )}
    </section>
  );
}
