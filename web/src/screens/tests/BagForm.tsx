'use client';

import { useState } from 'react';
import type { ClipSummary } from '@/data/clip/clips';
import { fieldUnit } from '@/manner/manner';
import { Button } from '@/ui/button';
import { BagFromFilm } from './BagFromFilm';
import { KnownField, Outcome, typed, useKnown } from './numbers';

export function BagForm({
  studentId,
  today,
  clips,
}: {
  studentId: string;
  today: string;
  clips: readonly ClipSummary[];
}) {
  const mass = useKnown('35', '1', 'kg');
  const length = useKnown('1.1', '0.02', 'm');
  const below = useKnown('1.1', '0.05', 'm');
  const swing = useKnown('', '1', '°');
  const contact = useKnown('', '3', 'ms');
  const side = fieldUnit('m');
  const [radius, setRadius] = useState(side.shown(0.18));
  const [chain, setChain] = useState(side.shown(0.5));
  const [isFilm, setFilm] = useState(false);
  const plain = (label: string, value: string, onChange: (text: string) => void) => (
    <div className="flex items-center gap-3 border-b border-rule py-2">
      <span className="w-56 font-semibold">{label}</span>
      <input
        aria-label={`${label}, ${side.unit}`}
        inputMode="decimal"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-10 w-28 border border-soft bg-field px-3 text-right"
      />
      <span className="text-soft">{side.unit}</span>
    </div>
  );
  return (
    <div className="max-w-3xl">
      <KnownField label="Mass of the bag" {...mass} />
      <KnownField label="Length of the bag" {...length} />
      {plain('Half its width', radius, setRadius)}
      {plain('Chain above it', chain, setChain)}
      <KnownField label="The blow, below the hook" {...below} />
      <div className="flex flex-wrap items-center gap-4">
        <KnownField label="Largest swing" {...swing} />
        <Button aria-pressed={isFilm} onClick={() => setFilm(!isFilm)}>
          From a film
        </Button>
      </div>
      {isFilm && <BagFromFilm clips={clips.filter((clip) => !clip.isPurged)} onSwing={swing.set} />}
      <KnownField label="Time of contact" {...contact} />
      <p className="mt-2 text-sm text-soft">
        The bag is taken for a uniform cylinder on a chain that weighs nothing, the contact for
        short. Check the numbers with a watch: the period must fit.
      </p>
      <Outcome
        studentId={studentId}
        today={today}
        given={{
          kind: 'bag',
          mass: mass.known,
          length: length.known,
          below: below.known,
          swing: swing.known,
          radius: side.kept(typed(radius)),
          chain: side.kept(typed(chain)),
          contact: contact.value.trim() === '' ? null : contact.known,
        }}
      />
    </div>
  );
}
