'use client';

import Link from 'next/link';
import { useState } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pastDay, pastTime } from '@/data/database/today';
import type { Shown } from '@/data/progress/ledger';
import type { LedgerFault, UnsaidFault } from '@/data/progress/ledgerPage';
import { CloseFault } from '@/screens/work/CloseFault';
import { Button } from '@/ui/button';

const STATE = { open: 'open', working: 'in work', closed: 'closed' } as const;

/** Faults as they were opened, worked and closed, and in how many strikes each showed meanwhile. */
export function FaultHistory({
  studentId,
  faults,
  unsaid,
}: {
  studentId: string;
  faults: readonly LedgerFault[];
  unsaid: readonly UnsaidFault[];
}) {
  const [closing, setClosing] = useState<LedgerFault | null>(null);
  return (
    <section aria-label="Leaks">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Leaks</h2>
      {faults.length === 0 && <p className="py-2 text-soft">None accepted yet.</p>}
      <ul>
        {faults.map((fault) => (
          <li
            key={`${fault.technique} ${fault.fault} ${fault.closedAt}`}
            className="border-b border-rule py-2"
          >
            <div className="flex items-baseline justify-between gap-4">
              <span className={fault.state === 'closed' ? 'text-soft' : 'font-semibold'}>
                {fault.name}
              </span>
              <span className="text-sm whitespace-nowrap text-soft">
                {techniqueById(fault.technique).name}, {STATE[fault.state]}
              </span>
            </div>
            <ShownStrip shown={fault.shown} />
            <p className="text-sm text-soft">
              Opened {pastTime(fault.openedAt)}
              {fault.closedAt &&
                `, closed ${pastTime(fault.closedAt)}: ${fault.closedBecause}`}.{' '}
              <SeeIt {...fault} />{' '}
              {fault.state !== 'closed' && (
                <Button
                  weight="quiet"
                  className="ml-3 !min-h-6 text-sm"
                  onClick={() => setClosing(fault)}
                >
                  It is gone
                </Button>
              )}
            </p>
          </li>
        ))}
      </ul>
      {unsaid.length > 0 && (
        <>
          <h3 className="mt-4 text-sm font-semibold">In the newest set, not decided on</h3>
          <ul>
            {unsaid.map((one) => (
              <li
                key={one.fault}
                className="flex items-baseline justify-between gap-4 border-b border-rule py-1.5 text-sm"
              >
                <span>
                  {one.name} <SeeIt {...one} />
                </span>
                <span className="whitespace-nowrap text-soft">
                  in {one.found} of {one.told}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {closing && (
        <CloseFault
          fault={{ studentId, technique: closing.technique, fault: closing.fault }}
          title={`“${closing.name}” is gone?`}
          text="Its cue and its work end; the ledger keeps when and why."
          action="Close the leak"
          onDone={() => setClosing(null)}
        />
      )}
    </section>
  );
}

function SeeIt({
  clipId,
  strikeId,
  isFilmed,
}: Pick<UnsaidFault, 'clipId' | 'strikeId' | 'isFilmed'>) {
  if (!isFilmed) return null;
  return (
    <Link href={`/bench/${clipId}?strike=${strikeId}`} className="underline underline-offset-4">
      See it
    </Link>
  );
}

/** So many sets are drawn. */
const SETS = 14;

/** A box for each set, filled as far as its strikes show the fault. */
function ShownStrip({ shown }: { shown: readonly Shown[] }) {
  const [first, last] = [shown[0], shown[shown.length - 1]];
  if (!first || !last) return null;
  const said = ({ day, found, told }: Shown) => `in ${found} of ${told} on ${pastDay(day)}`;
  const words = first === last ? said(last) : `${said(first)}, ${said(last)}`;
  return (
    <div className="my-1.5 flex items-center gap-3 text-sm">
      <span aria-hidden className="flex items-end gap-1">
        {shown.slice(-SETS).map(({ clipId, found, told }) => (
          <span key={clipId} className="flex h-5 w-2 items-end border border-ink">
            <span className="w-full bg-ink" style={{ height: `${(100 * found) / told}%` }} />
          </span>
        ))}
      </span>
      <span>Shown {words}.</span>
    </div>
  );
}
