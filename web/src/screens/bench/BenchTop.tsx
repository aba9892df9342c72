'use client';

import Link from 'next/link';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import {
  strikingLimb,
  TECHNIQUES,
  techniqueById,
  type Technique,
} from '@sinew/core/foundation/technique/techniques';
import { Dialog } from '@/ui/dialog';
import { Button } from '@/ui/button';
import { TopBar } from '@/ui/topBar';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { documentOf, strikeOf, useBench, useBenchStore } from './document/benchStore';
import { addStrike } from './document/edits';
import { MetDialog } from './MetDialog';

/** Student, the strikes of this clip, and whether all is saved. */
export function BenchTop() {
  const clip = useBench((state) => state.clip);
  const strikes = useBench((state) => documentOf(state).strikes);
  const strike = useBench(strikeOf);
  const store = useBenchStore();
  const [isAdding, setAdding] = useState(false);
  return (
    <TopBar right={<SaveMark />}>
      <Link href="/" className="text-soft hover:underline">
        Floor
      </Link>
      <Link href={`/students/${clip.studentId}`} className="font-semibold hover:underline">
        {clip.studentName}
      </Link>
      <h1 className="max-w-80 truncate text-base" title={clip.fileName}>
        {strike ? strikeName(strike) : <bdi>{clip.fileName}</bdi>}
      </h1>
      <div className="flex items-center gap-1.5">
        {strikes.map((one, index) => (
          <button
            key={one.id}
            type="button"
            aria-label={`Strike ${index + 1}: ${strikeName(one)}`}
            aria-pressed={one.id === strike?.id}
            onClick={() => store.getState().selectStrike(one.id)}
            className="size-6 border border-ink text-xs font-semibold aria-pressed:bg-ink aria-pressed:text-paper"
          >
            {index + 1}
          </button>
        ))}
        {strikes.length > 0 && (
          <Button className="ml-1 !min-h-6 !px-2 text-sm" onClick={() => setAdding(true)}>
            New strike
          </Button>
        )}
      </div>
      <Dialog isOpen={isAdding} onClose={() => setAdding(false)} title="Which strike is it?">
        <StrikeChooser onChosen={() => setAdding(false)} />
      </Dialog>
    </TopBar>
  );
}

function strikeName(strike: StrikeDocument): string {
  const technique = techniqueById(strike.technique);
  return `${technique.name}, ${strike.side} ${strikingLimb(technique)}`;
}

/** One button a technique; the hand follows from the student's stance and can be changed later. */
export function StrikeChooser({ onChosen }: { onChosen?: () => void }) {
  const store = useBenchStore();
  const stance = useBench((state) => state.student.stance);
  const choose = (technique: Technique) => {
    const id = nanoid();
    const side = strikingSide(technique, stance);
    const { edit, selectStrike, history } = store.getState();
    edit(addStrike(history.present, { id, technique: technique.id, side }));
    selectStrike(id);
    onChosen?.();
  };
  return (
    <div className="space-y-3">
      {GROUPS.map(({ name, families }) => (
        <section key={name} aria-label={name}>
          <h3 className="mb-1 text-sm font-semibold text-soft">{name}</h3>
          <div className="grid grid-cols-3 gap-1">
            {TECHNIQUES.filter(({ family }) => families.includes(family)).map((technique) => (
              <Button
                key={technique.id}
                onClick={() => choose(technique)}
                title={`${strikingSide(technique, stance)} ${strikingLimb(technique)}`}
                className="justify-start px-2.5!"
              >
                {technique.name}
              </Button>
            ))}
          </div>
        </section>
      ))}
      <p className="text-sm text-soft">
        In this stance {stance === 'orthodox' ? 'the left side leads' : 'the right side leads'};
        elbows, kicks, and stepping, whip and chambered straights count as the rear side’s until
        Set-up says otherwise.
      </p>
    </div>
  );
}

const GROUPS: readonly { name: string; families: readonly Technique['family'][] }[] = [
  { name: 'Punches', families: ['straight', 'hook', 'uppercut'] },
  { name: 'Elbows', families: ['elbow'] },
  { name: 'Kicks and knees', families: ['kick'] },
];

function SaveMark() {
  const save = useBench((state) => state.save);
  if (save.kind === 'met') return <MetDialog base={save.base} mine={save.mine} />;
  if (save.kind === 'failed') {
    return (
      <span role="alert" className="max-w-96 text-sm font-semibold text-now">
        {save.message}
        {save.isFinal && (
          <button type="button" className="ml-2 underline" onClick={() => location.reload()}>
            Reload
          </button>
        )}
      </span>
    );
  }
  return (
    <span role="status" className="text-sm text-soft">
      {save.kind === 'saved' ? 'Saved' : 'Saving…'}
    </span>
  );
}
