'use client';

import { useMemo, type ReactNode } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import type { Correction } from '@sinew/core/observe/track/correction';
import type { Reason } from '@sinew/core/observe/track/doubts';
import { limbDoubts, type LimbDoubt } from '@sinew/core/observe/track/limbDoubts';
import { limbOf } from '@sinew/core/observe/track/sides';
import { Button } from '@/ui/button';
import { documentOf, strikeOf, useBench, useBenchStore } from '../../document/benchStore';
import { correct } from '../../document/edits';
import { useTracked } from '../../document/useTracked';
import { useCommands } from '@/ui/commands/registry';

interface DoubtsHere {
  /** Of landmarks that the readings of this strike rest on; then all others. */
  readonly first: readonly LimbDoubt[];
  readonly others: readonly LimbDoubt[];
}

/** What is doubtful in the strike in hand, or in the whole film without one. */
function useDoubts(): DoubtsHere {
  const strike = useBench(strikeOf);
  const view = useBench((state) => documentOf(state).view);
  const { doubts } = useTracked().tracking;
  return useMemo(() => {
    const span = strike?.span;
    const here = limbDoubts(
      doubts.filter(({ from, to }) => !span || (to >= span.from && from <= span.to)),
    );
    const wanted = strike
      ? pointsToPlace({ technique: techniqueById(strike.technique), side: strike.side }, view)
      : [];
    const matters = ({ landmarks }: LimbDoubt) => landmarks.some((one) => wanted.includes(one));
    return { first: here.filter(matters), others: here.filter((one) => !matters(one)) };
  }, [doubts, strike, view]);
}

const isSame = (a: LimbDoubt, b: LimbDoubt) => a.name === b.name && a.from === b.from;

/** The keys for doubts: the next one, and the coach's word on the one in hand. */
export function DoubtKeys() {
  const { next, say } = useDoubtActions();
  useCommands(() =>
    [
      { id: 'next doubt', keys: ['d'], words: 'next doubtful point', run: next },
      { id: 'keep doubt', keys: ['k'], words: 'it is right as it is', run: () => say('keep') },
      { id: 'drop doubt', keys: ['h'], words: 'it cannot be seen', run: () => say('drop') },
      { id: 'swap doubt', keys: ['s'], words: 'swap left and right', run: () => say('swap') },
    ].map((one) => ({ ...one, group: 'Doubtful points' })),
  );
  return null;
}

function useDoubtActions() {
  const store = useBenchStore();
  const { first, others } = useDoubts();
  const all = [...first, ...others];
  const next = () => {
    const { doubt, lookInto, selectPoint } = store.getState();
    const at = doubt ? all.findIndex((one) => isSame(one, doubt)) : -1;
    const following = all[(at + 1) % all.length] ?? null;
    lookInto(following);
    if (following) {
      const { frame } = store.getState();
      selectPoint({ landmark: following.landmarks[0]!, frame });
    }
  };
  const say = (kind: Correction['kind']) => {
    const state = store.getState();
    const { doubt } = state;
    if (!doubt || (kind === 'swap' && !isOfLimb(doubt))) return;
    const { landmarks, from, to } = doubt;
    const at = all.findIndex((one) => isSame(one, doubt));
    // A swap takes the whole limb with it.
    const spoken = kind === 'swap' ? landmarks.slice(0, 1) : landmarks;
    state.edit(
      spoken.reduce(
        (document, landmark) => correct(document, { kind, landmark, from, to }),
        documentOf(state),
      ),
    );
    // The next one has moved up into its place.
    state.lookInto(all[at + 1] ?? null);
  };
  return { next, say };
}

const isOfLimb = ({ landmarks }: LimbDoubt) => limbOf(landmarks[0]!).length > 0;

const WHY: Record<Reason, string> = {
  hidden: 'out of sight',
  jumps: 'jumps about',
  swapped: 'left and right were mixed up, mended',
  unsure: 'poorly seen',
};

/**
 * The doubt in hand in words while one of its frames is looked at, whatever tab is open: what it is, and
 * how many there are.
 */
export function DoubtInHand({ otherwise }: { otherwise: ReactNode }) {
  const { first, others } = useDoubts();
  const doubt = useBench((state) => state.doubt);
  const frame = useBench((state) => state.frame);
  const all = [...first, ...others];
  const at = doubt ? all.findIndex((one) => isSame(one, doubt)) : -1;
  if (!doubt || at < 0 || frame < doubt.from || frame > doubt.to) return otherwise;
  return (
    <span role="status" className="min-w-0 truncate py-1.5">
      Doubt {at + 1} of {all.length}: <strong>{doubt.name}</strong>, {WHY[doubt.why]}
    </span>
  );
}

/** The list of doubts, and what can be said of the one in hand. */
export function DoubtList() {
  const { first, others } = useDoubts();
  const { next, say } = useDoubtActions();
  const doubt = useBench((state) => state.doubt);
  const isSwappable = doubt !== null && isOfLimb(doubt);
  if (first.length + others.length === 0) {
    return <p className="text-soft">No doubtful points in this strike.</p>;
  }
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap items-center gap-2">
        <Button hint="D" onClick={next}>
          Next doubt
        </Button>
        <Button hint="K" disabled={!doubt} onClick={() => say('keep')}>
          Right as it is
        </Button>
        <Button hint="H" disabled={!doubt} onClick={() => say('drop')}>
          Cannot be seen
        </Button>
        <Button hint="S" disabled={!isSwappable} onClick={() => say('swap')}>
          Swap left, right
        </Button>
      </div>
      <p className="text-sm text-soft">
        Or drag the point to where it belongs: its neighbours come along.
      </p>
      <List doubts={first} name="Readings of this strike rest on these" />
      <List doubts={others} name="The rest of the body" />
    </div>
  );
}

function List({ doubts, name }: { doubts: readonly LimbDoubt[]; name: string }) {
  const store = useBenchStore();
  const inHand = useBench((state) => state.doubt);
  if (doubts.length === 0) return null;
  return (
    <section aria-label={name}>
      <h3 className="border-b border-ink pb-1 text-sm font-semibold">{name}</h3>
      <ul>
        {doubts.map((doubt) => (
          <li key={doubt.name + doubt.from} className="border-b border-rule">
            <button
              type="button"
              aria-pressed={inHand !== null && isSame(inHand, doubt)}
              onClick={() => {
                store.getState().lookInto(doubt);
                const { frame, selectPoint } = store.getState();
                selectPoint({ landmark: doubt.landmarks[0]!, frame });
              }}
              className="flex w-full flex-wrap justify-between gap-x-4 px-1.5 py-1.5 text-left hover:bg-tint aria-pressed:bg-ink aria-pressed:text-paper"
            >
              <span>
                {doubt.name}, frames {doubt.from}–{doubt.to}
              </span>
              <span className="opacity-75">{WHY[doubt.why]}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
