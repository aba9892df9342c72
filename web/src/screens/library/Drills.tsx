'use client';

import { useState } from 'react';
import type { Drill } from '@sinew/core/foundation/drill/drills';
import type { Catalogue } from '@sinew/core/judge/fault/schema';
import type { Edits } from '@sinew/core/judge/library/edits';
import { DEMAND_NAMES } from '@sinew/core/foundation/drill/demand';
import { Button } from '@/ui/button';
import { OwnDrill } from './OwnDrill';
import type { Change } from './change';

/** Drills and doses; the dose is the coach's to change. */
export function Drills({
  catalogue,
  edits,
  make,
}: {
  catalogue: Catalogue;
  edits: Edits;
  make: Change;
}) {
  const [isAdding, setAdding] = useState(false);
  return (
    <>
      {isAdding ? (
        <OwnDrill make={make} onDone={() => setAdding(false)} />
      ) : (
        <Button className="my-4" onClick={() => setAdding(true)}>
          A drill of your own
        </Button>
      )}
      <ul>
        {catalogue.drills.map((drill) => (
          <DoseRow
            key={`${drill.id} ${drill.dose}`}
            drill={drill}
            isOwn={edits.ownDrills.some(({ id }) => id === drill.id)}
            isChanged={edits.drills[drill.id] !== undefined}
            mends={catalogue.faults.filter((fault) => fault.drill === drill.id).map((f) => f.name)}
            make={make}
          />
        ))}
      </ul>
    </>
  );
}

function DoseRow({
  drill,
  isOwn,
  isChanged,
  mends,
  make,
}: {
  drill: Drill;
  /** The gym's own, which can be taken away. */
  isOwn: boolean;
  isChanged: boolean;
  mends: readonly string[];
  make: Change;
}) {
  const [dose, setDose] = useState(drill.dose);
  return (
    <li className="border-b border-rule py-2">
      <form
        className="grid items-center gap-x-6 gap-y-2 md:grid-cols-[1fr_22rem_9rem]"
        onSubmit={(event) => {
          event.preventDefault();
          void make({ kind: 'dose', drill: drill.id, dose });
        }}
      >
        <span>
          <span className="font-semibold">{drill.name}</span>
          <span className="block text-sm text-soft">
            {[...(isOwn ? ['the gym’s own'] : []), ...mends].join(', ')}
            {drill.asks.length > 0 && (
              <span className="block">
                Asks: {drill.asks.map((one) => DEMAND_NAMES[one]).join(', ')}
              </span>
            )}
          </span>
        </span>
        <input
          aria-label={`Dose: ${drill.name}`}
          value={dose}
          maxLength={120}
          onChange={(event) => setDose(event.target.value)}
          className="h-9 border border-soft bg-field px-2"
        />
        <span>
          {dose !== drill.dose ? (
            <Button type="submit" className="!min-h-8 text-sm">
              Keep
            </Button>
          ) : (
            <>
              {isChanged && (
                <Button
                  weight="quiet"
                  className="!min-h-6 text-sm"
                  onClick={() => void make({ kind: 'dose', drill: drill.id, dose: null })}
                >
                  Reset to default
                </Button>
              )}
              {isOwn && (
                <Button
                  weight="quiet"
                  className="!min-h-6 text-sm"
                  aria-label={`Take away: ${drill.name}`}
                  onClick={() => void make({ kind: 'remove-own-drill', drill: drill.id })}
                >
                  Take it away
                </Button>
              )}
            </>
          )}
        </span>
      </form>
    </li>
  );
}
