'use client';

import { useState } from 'react';
import { faultById } from '@sinew/core/judge/fault/faults';
import type { Catalogue, Fault } from '@sinew/core/judge/fault/schema';
import type { Agreement } from '@sinew/core/judge/library/agreement';
import type { Edits } from '@sinew/core/judge/library/edits';
import { Button } from '@/ui/button';
import type { Change } from './change';
import { FaultDetail } from './FaultDetail';
import { OwnFault } from './OwnFault';

/** Every fault at the left, the one in hand at the right. */
export function FaultList({
  catalogue,
  usual,
  edits,
  agreements,
  make,
}: {
  catalogue: Catalogue;
  usual: Catalogue;
  edits: Edits;
  /** By fault. */
  agreements: Readonly<Record<string, Agreement>>;
  make: Change;
}) {
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState<string | 'new'>(catalogue.faults[0]!.id);
  const words = query.trim().toLowerCase();
  const shown = catalogue.faults.filter(({ name, cue, headline }) =>
    `${name} ${cue} ${headline}`.toLowerCase().includes(words),
  );
  const fault = faultById(chosen, catalogue);
  return (
    <div className="grid gap-10 md:grid-cols-[20rem_1fr] pt-5">
      <div>
        <label className="flex items-center gap-2 border-b border-soft text-sm">
          <span className="text-soft">Find</span>
          <input
            value={query}
            onChange={(event) => setQuery(event.target.value)}
            className="h-9 w-full bg-transparent outline-none"
          />
        </label>
        <ul className="mt-1 max-h-[62dvh] overflow-auto">
          {shown.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one.id === chosen || undefined}
                onClick={() => setChosen(one.id)}
                className="flex w-full items-baseline justify-between gap-3 border-b border-rule py-1.5 pl-2 text-left aria-[current]:bg-tint aria-[current]:font-semibold"
              >
                <span className={edits.faults[one.id]?.isOff ? 'text-soft line-through' : ''}>
                  {one.name}
                </span>
                <span className="pr-2 text-sm text-soft">{stateOf(one, edits)}</span>
              </button>
            </li>
          ))}
        </ul>
        <Button className="mt-4" onClick={() => setChosen('new')}>
          A leak of your own
        </Button>
      </div>
      {chosen === 'new' ? (
        <OwnFault catalogue={catalogue} make={make} onDone={setChosen} />
      ) : (
        fault && (
          <FaultDetail
            key={fault.id}
            fault={fault}
            usual={faultById(fault.id, usual) ?? null}
            catalogue={catalogue}
            edits={edits}
            agreement={agreements[fault.id] ?? null}
            make={make}
          />
        )
      )}
    </div>
  );
}

function stateOf({ id, injury }: Fault, { faults, own }: Edits): string {
  if (faults[id]?.isOff) return 'not judged';
  if (own.some((one) => one.id === id)) return 'your own';
  if (faults[id]) return 'changed';
  return injury ? 'can hurt' : '';
}
