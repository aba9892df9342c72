import type { Agreement } from '@sinew/core/judge/library/agreement';
import { unitOf } from '@sinew/core/measure/measures/units';
import { quantity } from '@/manner/manner';
import { Button } from '@/ui/button';
import { readingName } from './readingName';

/** How the coaches have decided where this leak was found, and the limit that would have agreed with them. */
export function AgreementHere({
  agreement: { taken, wrong, proposal },
  isFixed,
  onMove,
}: {
  agreement: Agreement;
  isFixed: boolean;
  onMove: (limit: string, value: number) => void;
}) {
  return (
    <section aria-label="How you have decided" className="border-b border-rule py-2.5">
      <h3 className="font-semibold">How you have decided</h3>
      <p>
        Found and decided on {times(taken + wrong)}: taken {times(taken)}, called wrong{' '}
        {times(wrong)}.
      </p>
      {proposal && (
        <div className="mt-1 flex flex-wrap items-center gap-3">
          <p className="max-w-xl">
            With <strong>{readingName(proposal.reading)}</strong> at{' '}
            {quantity(proposal.to, unitOf(proposal.reading))} instead of{' '}
            {quantity(proposal.from, unitOf(proposal.reading))}, {proposal.wrongLeft} of the {wrong}{' '}
            called wrong would not have been found
            {proposal.takenLeft === 0
              ? ', and all that you took would.'
              : `; nor would ${proposal.takenLeft} that you took.`}
          </p>
          <Button disabled={isFixed} onClick={() => onMove(proposal.limit, proposal.to)}>
            Move the limit
          </Button>
        </div>
      )}
    </section>
  );
}

const times = (count: number) => (count === 1 ? 'once' : count === 0 ? 'never' : `${count} times`);
