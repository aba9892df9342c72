'use client';

import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { Button } from '@/ui/button';
import { documentOf, strikeOf, useBench, useBenchStore } from './benchStore';
import { confirmStrike, refuseAutomatic, renameStrike } from './edits';
import { TechniqueSelect } from '../panel/TechniqueSelect';
import { useCommands } from '@/ui/commands/registry';

/** The strike in hand was found and named by the program: the coach's word on it, one key each. */
export function AutomaticAsked() {
  const strike = useBench(strikeOf);
  return strike?.isAutomatic ? <Asked key={strike.id} /> : null;
}

function Asked() {
  const store = useBenchStore();
  const strike = useBench(strikeOf)!;
  const left = useBench(
    (state) => documentOf(state).strikes.filter((one) => one.isAutomatic).length,
  );

  const next = () => {
    const open = documentOf(store.getState()).strikes.find((one) => one.isAutomatic);
    if (open) store.getState().selectStrike(open.id);
  };
  const confirm = () => {
    const state = store.getState();
    state.edit(confirmStrike(documentOf(state), strike.id));
    next();
  };
  const refuse = () => {
    const state = store.getState();
    const last = state.clip.frameTimes.length - 1;
    state.edit(refuseAutomatic(documentOf(state), strike, last));
    next();
  };
  const rename = (id: string) => {
    const state = store.getState();
    const side = strikingSide(techniqueById(id), state.student.stance);
    state.edit(renameStrike(documentOf(state), strike.id, { technique: id, side }));
  };
  useCommands(() =>
    [
      { id: 'confirm', keys: ['y'], words: 'the strike is as Sinew says', run: confirm },
      { id: 'no strike', keys: ['x'], words: 'it is no strike', run: refuse },
    ].map((one) => ({ ...one, group: 'Strikes found' })),
  );

  return (
    <section aria-label="Found by Sinew" className="border-b border-ink bg-tint px-5 py-2.5">
      <div className="flex flex-wrap items-center gap-x-2.5 gap-y-2">
        <p className="mr-1">
          <strong>Automatic.</strong> Strike, instants and points are Sinew’s until you say so.
        </p>
        <Button weight="main" hint="Y" onClick={confirm}>
          Confirm
        </Button>
        <Button hint="X" onClick={refuse}>
          No strike
        </Button>
        <TechniqueSelect value={strike.technique} onChoose={rename} />
        {left > 1 && <span className="ml-auto text-sm text-soft">{left} to confirm</span>}
      </div>
    </section>
  );
}
