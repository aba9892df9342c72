'use client';

import type { ReactNode } from 'react';
import type { SetSpeed } from '@/data/progress/ledger';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pastDay } from '@/data/database/today';
import { quantity } from '@/manner/manner';
import { SelectField } from '@/ui/field';
import { KnownField, Outcome, useKnown } from './numbers';

interface Given {
  readonly studentId: string;
  readonly today: string;
}

function Form({ children, ...given }: Given & { given: unknown; children: ReactNode }) {
  return (
    <div className="max-w-2xl">
      {children}
      <Outcome {...given} />
    </div>
  );
}

/** How far the rear hand reaches, beside the lead hand. */
export function ReachForm(props: Given) {
  const rear = useKnown('', '2', 'cm');
  const lead = useKnown('', '2', 'cm');
  const metres = ({ known: { value, plusMinus } }: typeof rear) => ({
    value: value / 100,
    plusMinus: plusMinus / 100,
  });
  return (
    <Form {...props} given={{ kind: 'pair', rear: metres(rear), lead: metres(lead) }}>
      <KnownField label="Rear hand lands" {...rear} />
      <KnownField label="Lead hand lands" {...lead} />
      <p className="mt-2 text-sm text-soft">
        From the toes of the rear foot to where each hand lands with all of its turn, feet in the
        same places.
      </p>
    </Form>
  );
}

/** How much of the turn that is there a strike uses. */
export function RangeForm(props: Given) {
  const free = useKnown('', '5', '°');
  const used = useKnown('', '5', '°');
  return (
    <Form {...props} given={{ kind: 'range', free: free.known, used: used.known }}>
      <KnownField label="Slow, as far as it goes" {...free} />
      <KnownField label="In the strike, full speed" {...used} />
      <p className="mt-2 text-sm text-soft">
        Turn of the trunk from guard, slow and without a load, beside <em>Trunk turn</em> of a fast
        set in the ledger. Stretch only to the range that the strike needs.
      </p>
    </Form>
  );
}

/** A strike at a target that comes or goes. */
export function ClosingForm({ speeds, ...props }: Given & { speeds: readonly SetSpeed[] }) {
  const strike = useKnown('', '0.5', 'm/s');
  const way = useKnown('', '2', 'cm');
  const time = useKnown('', '10', 'ms');
  const small = ({ known: { value, plusMinus } }: typeof way, by: number) => ({
    value: value / by,
    plusMinus: plusMinus / by,
  });
  const take = (chosen: string) => {
    const set = speeds[Number(chosen)];
    if (set) strike.set(set);
  };
  return (
    <Form
      {...props}
      given={{
        kind: 'closing',
        strike: strike.known,
        way: small(way, 100),
        time: small(time, 1000),
      }}
    >
      {speeds.length > 0 && (
        <div className="mb-2 max-w-md">
          <SelectField
            label="Speed out of the ledger"
            value=""
            onChange={(event) => take(event.target.value)}
          >
            <option value="">choose a set</option>
            {speeds.map((one, i) => (
              <option key={one.clipId + one.technique} value={i}>
                {techniqueById(one.technique).name}, {pastDay(one.day)}:{' '}
                {quantity(one.value, 'm/s')}
              </option>
            ))}
          </SelectField>
        </div>
      )}
      <KnownField label="Speed of the strike" {...strike} />
      <KnownField label="The pad came" {...way} />
      <KnownField label="in" {...time} />
      <p className="mt-2 text-sm text-soft">
        Over the last frames before contact, with the ruler on the bench (<strong>M</strong>). A pad
        that goes away counts with a minus.
      </p>
    </Form>
  );
}
