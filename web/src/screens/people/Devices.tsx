'use client';

import { toast } from 'sonner';
import { reaches, type Asker } from '@/data/access/roles';
import type { SignIn } from '@/data/access/signIns';
import { instant } from '@/manner/manner';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { endDevice } from './actions';

/** Every browser and phone that is in, by when it was used last. */
export function Devices({ devices, asker }: { devices: readonly SignIn[]; asker: Asker }) {
  const end = async (one: SignIn) => {
    const wrong = await endDevice(one.id).catch(() => LOST);
    toast(wrong ?? (one.kind === 'phone' ? 'Unpaired.' : 'Signed out.'));
  };
  return (
    <section aria-label="Phones and browsers">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {devices.length === 0 ? 'No phone and no browser is in' : 'Phones and browsers that are in'}
      </h2>
      <ul>
        {devices.map((one) => {
          const isThis = one.id === asker.signInId;
          const mayEnd =
            one.kind === 'phone' || one.personId === asker.personId || reaches(asker.role, 'owner');
          return (
            <li
              key={one.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5"
            >
              <span className="min-w-0 flex-1">
                <strong>{one.name}</strong> · {one.kind === 'phone' ? 'paired phone' : 'signed in'},{' '}
                {one.device}
                <span className="block text-sm text-soft" suppressHydrationWarning>
                  {isThis ? 'this one' : `used last ${instant(one.usedAt)}`}
                </span>
              </span>
              {!isThis && mayEnd && (
                <Button className="min-h-11" onClick={() => void end(one)}>
                  {one.kind === 'phone' ? 'Unpair' : 'Sign out'}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
