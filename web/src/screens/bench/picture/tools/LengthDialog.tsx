'use client';

import { useState } from 'react';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { fieldUnit, inManner } from '@/manner/manner';
import { TextField } from '@/ui/field';

/** Asks how long the drawn line is in truth. */
export function LengthDialog({ onDone }: { onDone: (metres: number | null) => void }) {
  const [text, setText] = useState('');
  const length = fieldUnit('cm');
  const centimetres = length.kept(Number(text.replace(',', '.')));
  const isGood = text.trim() !== '' && centimetres >= 1 && centimetres <= 10_000;
  return (
    <Dialog isOpen onClose={() => onDone(null)} title="How long is it?">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) onDone(centimetres / 100);
        }}
      >
        <TextField
          label={`Length, ${length.unit}`}
          inputMode="decimal"
          autoFocus
          value={text}
          onChange={(event) => setText(event.target.value)}
          error={text === '' || isGood ? undefined : inManner('A length, 1 to 10000 cm.')}
          hint="A stick held in the plane of the strike is best; the longer, the surer."
        />
        <div className="mt-5 flex gap-4">
          <Button type="submit" weight="main" disabled={!isGood}>
            Set the scale
          </Button>
          <Button onClick={() => onDone(null)}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
