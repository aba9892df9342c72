import { useState } from 'react';
import { DEMAND_NAMES, DEMANDS, type Demand } from '@sinew/core/foundation/drill/demand';
import { drillSchema } from '@sinew/core/foundation/drill/drills';
import type { Link } from '@sinew/core/foundation/technique/techniques';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { LinkField } from './LinkField';
import { slug } from './slug';
import type { Change } from './change';

/** A drill of the gym's own. What it asks of a body decides who leaves it out, as with those that come with Sinew. */
export function OwnDrill({ make, onDone }: { make: Change; onDone: () => void }) {
  const [name, setName] = useState('');
  const [dose, setDose] = useState('');
  const [link, setLink] = useState<Link>('pelvis');
  const [asks, setAsks] = useState<readonly Demand[]>([]);
  const [problem, setProblem] = useState<string | null>(null);

  const keep = async () => {
    const parsed = drillSchema.safeParse({ id: slug(name), name, dose, link, asks });
    const isWhole = parsed.success && dose.trim() !== '';
    setProblem(isWhole ? null : 'A name in letters and a dose are needed.');
    if (isWhole && (await make({ kind: 'own-drill', drill: parsed.data }))) onDone();
  };
  return (
    <section
      aria-label="A drill of your own"
      className="mb-8 space-y-4 border-b border-ink pt-6 pb-6"
    >
      <h2 className="font-serif text-3xl leading-tight">A drill of your own.</h2>
      <div className="grid gap-4 md:grid-cols-3">
        <TextField
          label="Name"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          label="Dose"
          value={dose}
          maxLength={120}
          placeholder="3 × 8 slow"
          onChange={(event) => setDose(event.target.value)}
        />
        <LinkField label="Link it works on" link={link} onLink={setLink} />
      </div>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">What it asks of a body</legend>
        <div className="flex flex-wrap gap-x-6 gap-y-1">
          {DEMANDS.map((demand) => (
            <label key={demand} className="flex min-h-11 items-center gap-2 md:min-h-0">
              <input
                type="checkbox"
                checked={asks.includes(demand)}
                onChange={(event) =>
                  setAsks(
                    event.target.checked ? [...asks, demand] : asks.filter((one) => one !== demand),
                  )
                }
                className="size-4 accent-ink"
              />
              {DEMAND_NAMES[demand]}
            </label>
          ))}
        </div>
        <p className="mt-1 text-sm text-soft">
          Juniors, and students with a note on what hurts, leave out what asks too much of them.
        </p>
      </fieldset>
      {problem && (
        <p role="alert" className="font-semibold text-now">
          {problem}
        </p>
      )}
      <div className="flex gap-4">
        <Button weight="main" onClick={() => void keep()}>
          Keep the drill
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </section>
  );
}
