'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { OpenDoor } from '@/data/door/door';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { QrCode } from '@/ui/qrCode';
import { openGym, shutGym } from './actions';
import { FirstWarning } from './FirstWarning';

/** The switch between this machine alone and the gym's network, and what each means. */
export function Network({
  door,
  isOwner,
  hasOwner,
  isDemo,
}: {
  door: OpenDoor | null;
  isOwner: boolean;
  hasOwner: boolean;
  isDemo: boolean;
}) {
  const [isBusy, setBusy] = useState(false);
  const turn = async (work: () => Promise<string | null>, words: string) => {
    setBusy(true);
    const wrong = await work().catch(() => LOST);
    setBusy(false);
    toast(wrong ?? words);
  };
  return (
    <section aria-label="The gym’s network">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {door ? 'Open to the gym’s network' : 'Open on this machine only'}
      </h2>
      {door ? (
        <>
          <p className="py-2">
            Phones and laptops in the same network reach Sinew here, encrypted, after they have been
            paired or somebody has signed in. Nothing goes to the internet. It shuts when Sinew
            stops.
          </p>
          <Open door={door} />
          {isOwner && (
            <Button
              className="mt-4"
              disabled={isBusy}
              onClick={() => void turn(shutGym, 'Shut: only this machine reaches Sinew.')}
            >
              Shut it
            </Button>
          )}
        </>
      ) : (
        <>
          <p className="py-2">
            {isDemo
              ? 'The demo stays on this machine, and nobody signs in. In your own gym this page opens Sinew to phones at the mat.'
              : 'Opened, phones at the mat send their clips straight to the bench, and other coaches work on their own laptops. Everybody signs in then, here too. Only the gym’s own network reaches it; nothing goes to the internet.'}
          </p>
          {!isDemo && isOwner && hasOwner && (
            <Button
              weight="main"
              disabled={isBusy}
              onClick={() => void turn(openGym, 'Open to the gym’s network.')}
            >
              Open the gym
            </Button>
          )}
        </>
      )}
    </section>
  );
}

function Open({ door: { addresses, fingerprint, isOwnMade } }: { door: OpenDoor }) {
  const [at, setAt] = useState(0);
  const address = addresses[at] ?? addresses[0]!;
  return (
    <div className="mt-2 grid gap-5 sm:grid-cols-[12rem_1fr]">
      <div className="self-start border border-ink">
        <QrCode text={address} label={`Address of this gym: ${address}`} />
      </div>
      <div>
        <ul>
          {addresses.map((one, i) => (
            <li key={one} className="border-b border-rule">
              <button
                type="button"
                aria-pressed={i === at}
                className={`min-h-10 w-full text-left ${i === at ? 'font-semibold' : 'text-soft hover:underline'}`}
                onClick={() => setAt(i)}
              >
                {one}
              </button>
            </li>
          ))}
        </ul>
        {isOwnMade && <FirstWarning fingerprint={fingerprint} />}
      </div>
    </div>
  );
}
