'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Backup } from '@/data/maintenance/backups';
import { instant } from '@/manner/manner';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { backUpNow, goBackTo } from './actions';

/** The copies of the last days, and the way back to one. */
export function Backups({
  backups,
  folder,
  isOwner,
}: {
  backups: readonly Backup[];
  folder: string;
  /** Only the owner goes back to one. */
  isOwner: boolean;
}) {
  const [asked, setAsked] = useState<Backup | null>(null);
  const [isBusy, setBusy] = useState(false);
  const run = async (work: () => Promise<string | null>, done: string) => {
    setBusy(true);
    const wrong = await work().catch(
      () => 'It did not work: the server does not answer. Try again.',
    );
    setBusy(false);
    setAsked(null);
    toast(wrong ?? done);
  };
  return (
    <section aria-label="Backups" id="backups">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {backups.length === 0 ? 'No backup yet' : 'Backups, one a day'}
      </h2>
      <p className="py-2 text-soft">
        In <code className="bg-tint px-1">{folder}</code>, checked as they are made. Name another
        disk with <code className="bg-tint px-1">SINEW_BACKUP</code>: a copy on the same one does
        not outlive it.{!isOwner && ' The gym’s owner goes back to one.'}
      </p>
      <ul>
        {backups.map((one) => (
          <li
            key={one.name}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-1.5"
          >
            <span className="font-semibold" suppressHydrationWarning>
              {instant(one.at)}
            </span>
            <span className="text-soft">{(one.bytes / 1e6).toFixed(1)} MB without films</span>
            {isOwner && (
              <Button className="ml-auto !min-h-8" disabled={isBusy} onClick={() => setAsked(one)}>
                Go back to it
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Button
        className="mt-3"
        disabled={isBusy}
        onClick={() => void run(backUpNow, 'The backup is made.')}
      >
        Back up now
      </Button>
      <Dialog
        isOpen={asked !== null}
        onClose={() => setAsked(null)}
        title={`Back to ${asked ? instant(asked.at) : ''}?`}
      >
        <p>
          Everything done since then goes from the Floor. It is backed up first, so that you can
          come back to now.
        </p>
        <div className="mt-5 flex gap-4">
          <Button
            weight="main"
            disabled={isBusy}
            onClick={() => asked && void run(() => goBackTo(asked.name), 'The gym is as it was.')}
          >
            Go back
          </Button>
          <Button onClick={() => setAsked(null)}>Stay here</Button>
        </div>
      </Dialog>
    </section>
  );
}
