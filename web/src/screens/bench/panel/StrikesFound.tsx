'use client';

import { nanoid } from 'nanoid';
import { useEffect, useEffectEvent, useState } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { frameSpacing } from '@sinew/core/observe/track/track';
import { Button } from '@/ui/button';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { refuseStrike, takeStrike } from '../document/edits';
import { heartOf, type Proposal } from '@sinew/core/analysis/strikesFound';
import { useRealTimes } from '../document/realTimes';
import { TechniqueSelect } from './TechniqueSelect';
import { useOpenProposals, useProposals } from '../document/useTake';
import { useCommands } from '@/ui/commands/registry';

/** Strikes that were found in the take, asked about one after the other: one key each. */
export function StrikesFound() {
  const open = useOpenProposals();
  const untouched = useBench(
    (state) => state.frame === 0 && documentOf(state).strikes.length === 0,
  );
  const [hasDecided, setDecided] = useState(false);
  const [proposal] = open;
  return proposal ? (
    <Asked
      key={proposal.number}
      proposal={proposal}
      left={open.length}
      isShownAtOnce={hasDecided || untouched}
      onDecided={() => setDecided(true)}
    />
  ) : null;
}

function Asked({
  proposal,
  left,
  isShownAtOnce,
  onDecided,
}: {
  proposal: Proposal;
  left: number;
  /** Whether the picture goes there by itself: never away from what the coach is looking at. */
  isShownAtOnce: boolean;
  onDecided: () => void;
}) {
  const store = useBenchStore();
  const times = useRealTimes();
  const count = useProposals().length;
  const stance = useBench((state) => state.student.stance);
  const usual = useBench((state) => {
    const { strikes, purpose } = documentOf(state);
    return strikes[strikes.length - 1]?.technique ?? purpose?.technique ?? 'cross';
  });
  const [technique, setTechnique] = useState(usual);
  const heart = heartOf(proposal);

  const look = () => store.getState().goTo(heart);
  const lookFirst = useEffectEvent(() => {
    if (isShownAtOnce) look();
  });
  useEffect(() => lookFirst(), []);

  const take = () => {
    const state = store.getState();
    const id = nanoid();
    const side = strikingSide(techniqueById(technique), stance);
    state.edit(takeStrike(documentOf(state), { id, technique, side }, proposal));
    state.selectStrike(id);
    onDecided();
  };
  const refuse = () => {
    const state = store.getState();
    state.edit(refuseStrike(documentOf(state), proposal));
    onDecided();
  };
  useCommands(() =>
    [
      { id: 'take found', keys: ['y'], words: 'what was found is a strike', run: take },
      { id: 'refuse found', keys: ['x'], words: 'it is none', run: refuse },
      { id: 'see found', keys: ['g'], words: 'see it', run: look },
    ].map((one) => ({ ...one, group: 'Strikes found' })),
  );

  return (
    <section
      aria-label="Strikes found"
      className="border-b border-ink bg-tint px-5 py-3"
      data-proposal={proposal.number}
      data-heart={heart}
    >
      <div className="mb-2 flex items-baseline justify-between gap-3">
        <h2 className="font-serif text-xl leading-tight">
          Strike {proposal.number} of {count} found
          {proposal.combination && ', in a combination'}?
        </h2>
        <span className="text-sm text-soft">{left} to decide</span>
      </div>
      <p className="mb-2.5">
        {proposal.contact
          ? `A hit is heard at ${times[heart]!.toFixed(3)} s, ± ${spread(proposal, times)} ms.`
          : `Much moves around ${times[heart]!.toFixed(2)} s; nothing is heard.`}
      </p>
      <div className="flex flex-wrap items-center gap-2.5">
        <Button weight="main" hint="Y" onClick={take}>
          A strike
        </Button>
        <Button hint="X" onClick={refuse}>
          Not one
        </Button>
        <Button hint="G" onClick={look}>
          See it
        </Button>
        <TechniqueSelect value={technique} onChoose={setTechnique} />
      </div>
    </section>
  );
}

/** Half the frames that the contact may be on, milliseconds. */
function spread({ contact }: Proposal, times: readonly number[]): number {
  return contact ? Math.ceil(500 * contact.width * frameSpacing(times, contact.frame)) : 0;
}
