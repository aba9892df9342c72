'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { Person } from '@/data/access/people';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { QrCode } from '@/ui/qrCode';
import { FirstWarning } from './FirstWarning';
import { isPaired, showPairing, type PairingShown } from './actions';

const LOOKS_EVERY = 2000;

/** A code for a phone's camera; says when the phone is in. */
export function PairPhone({ person, onDone }: { person: Person; onDone: () => void }) {
  const [shown, setShown] = useState<PairingShown | null>(null);
  useEffect(() => {
    showPairing(person.id)
      .catch((): PairingShown => ({ kind: 'wrong', why: LOST }))
      .then(setShown);
  }, [person.id]);
  const code = shown?.kind === 'code' ? shown.code : null;
  useEffect(() => {
    if (code === null) return;
    const timer = setInterval(() => {
      void isPaired(code)
        .catch(() => false)
        .then((isIn) => {
          if (!isIn) return;
          toast('The phone is paired.');
          onDone();
        });
    }, LOOKS_EVERY);
    return () => clearInterval(timer);
  }, [code, onDone]);
  return (
    <Dialog isOpen isWide onClose={onDone} title={`Pair a phone of ${person.name}`}>
      {shown?.kind === 'wrong' && (
        <p role="alert" className="font-semibold text-now">
          {shown.why}
        </p>
      )}
      {shown?.kind === 'code' && (
        <div className="grid gap-5 sm:grid-cols-[14rem_1fr]">
          <div className="self-start border border-ink">
            <QrCode text={shown.url} label={`Pairing address: ${shown.url}`} />
          </div>
          <div className="space-y-3">
            <p>Point the phone’s camera at it, open the page, and press the button there.</p>
            <p>
              Or open the gym’s address with <code className="bg-tint px-1">/pair</code> at its end
              and type <strong className="font-mono text-lg">{shown.code}</strong>
            </p>
            <p className="text-soft">
              It works once, within {shown.minutes} minutes. The phone films in this name, and sees
              no leaks, no notes and no injuries.
            </p>
          </div>
        </div>
      )}
      {shown?.kind === 'code' && shown.fingerprint && (
        <FirstWarning fingerprint={shown.fingerprint} />
      )}
      <div className="mt-5">
        <Button onClick={onDone}>Close</Button>
      </div>
    </Dialog>
  );
}
