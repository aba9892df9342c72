'use client';

import { useState } from 'react';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { correct } from '../../document/edits';

const LIMBS = { arms: 'leftElbow', legs: 'leftKnee' } as const;

/** Where the tracker took one limb for the other and nobody noticed: exchanged over some frames. */
export function SwapForm() {
  const store = useBenchStore();
  const frame = useBench((state) => state.frame);
  const last = useBench((state) => state.clip.frameTimes.length - 1);
  const [limb, setLimb] = useState<keyof typeof LIMBS>('arms');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [start, end] = [Number(from || frame), Number(to || frame)];
  const isGood =
    Number.isInteger(start) && Number.isInteger(end) && start >= 0 && end >= start && end <= last;
  return (
    <form
      aria-label="Swap left and right"
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isGood) return;
        const state = store.getState();
        const said = { kind: 'swap', landmark: LIMBS[limb], from: start, to: end } as const;
        state.edit(correct(documentOf(state), said));
      }}
    >
      <h2 className="font-serif text-xl">Left and right mixed up?</h2>
      <div className="flex flex-wrap items-start gap-3">
        <div className="w-28">
          <SelectField
            label="Swap the"
            value={limb}
            onChange={(event) => setLimb(event.target.value as keyof typeof LIMBS)}
          >
            <option value="arms">arms</option>
            <option value="legs">legs</option>
          </SelectField>
        </div>
        <div className="w-24">
          <TextField
            label="from frame"
            inputMode="numeric"
            placeholder={String(frame)}
            value={from}
            onChange={(event) => setFrom(event.target.value)}
          />
        </div>
        <div className="w-24">
          <TextField
            label="to frame"
            inputMode="numeric"
            placeholder={String(frame)}
            value={to}
            onChange={(event) => setTo(event.target.value)}
            error={isGood ? undefined : `0 to ${last}, in order`}
          />
        </div>
        <Button type="submit" className="mt-6" disabled={!isGood}>
          Swap
        </Button>
      </div>
    </form>
  );
}
