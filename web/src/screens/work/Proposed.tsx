import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { shortDay } from '@/manner/manner';
import type { Proposal } from '@/data/work/work';
import { Button } from '@/ui/button';
import { STANCE_NAMES } from './stanceNames';

/** A cue that has no work yet, with what the catalogue would give. */
export function Proposed({
  proposal: { worksOn, name, prescription, first },
  hint,
  onTake,
  onChange,
}: {
  proposal: Proposal;
  hint: string | undefined;
  onTake: () => void;
  onChange: () => void;
}) {
  return (
    <section aria-label={`Proposed: ${name}`} className="mt-5 border border-ink p-4">
      <p className="text-soft">
        {techniqueById(worksOn.technique).name}: {name}
      </p>
      <p className="mt-1 font-serif text-2xl">{prescription.name}</p>
      <p className="mt-1">
        {prescription.dose}, {STANCE_NAMES[prescription.stances]},{' '}
        {INTENT_NAMES[prescription.intent]}. Film again {shortDay(prescription.nextCheck)}.
      </p>
      {first.length > 0 && (
        <p className="mt-1 text-soft">In build order first: {first.join(', ')}.</p>
      )}
      <div className="mt-3 flex gap-3">
        <Button weight="main" hint={hint} onClick={onTake}>
          Give this work
        </Button>
        <Button onClick={onChange}>Change it first</Button>
      </div>
    </section>
  );
}
