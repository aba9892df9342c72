'use client';

import { useState } from 'react';
import type { ClipSummary } from '@/data/clip/clips';
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
  const mass = useKnown('35', '1');
  const length = useKnown('1.1', '0.02');
  const below = useKnown('1.1', '0.05');
  const swing = useKnown('', '1');
  const contact = useKnown('', '3');
  const [radius, setRadius] = useState('0.18');
  const [chain, setChain] = useState('0.5');
  const [isFilm, setFilm] = useState(false);
  const plain = (label: string, value: string, onChange: (text: string) => void) => (
    <div className="flex items-center gap-3 border-b border-rule py-2">
      <span className="w-56 font-semibold">{label}</span>
      <input
        aria-label={`${label}, m`}
        inputMode="decimal"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-10 w-28 border border-soft bg-field px-3 text-right"
      />
      <span className="text-soft">m</span>
    </div>
  );
  return (
    <div className="max-w-3xl">
      <KnownField label="Mass of the bag" unit="kg" {...mass} />
      <KnownField label="Length of the bag" unit="m" {...length} />
      {plain('Half its width', radius, setRadius)}
      {plain('Chain above it', chain, setChain)}
      <KnownField label="The blow, below the hook" unit="m" {...below} />
      <div className="flex flex-wrap items-center gap-4">
        <KnownField label="Largest swing" unit="°" {...swing} />
        <Button aria-pressed={isFilm} onClick={() => setFilm(!isFilm)}>
          From a film
        </Button>
      </div>
      {isFilm && (
        <BagFromFilm
          clips={clips.filter((clip) => !clip.isPurged)}
          onSwing={({ value, plusMinus }) =>
            swing.set({ value: value.toFixed(1), plusMinus: plusMinus.toFixed(1) })
          }
        />
      )}
      <KnownField label="Time of contact" unit="ms" {...contact} />
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
          radius: typed(radius),
          chain: typed(chain),
          contact: contact.value.trim() === '' ? null : contact.known,
        }}
      />
    </div>
  );
}
