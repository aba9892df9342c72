'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Backup } from '@/data/maintenance/backups';
import type { Settings } from '@/data/gym/gym';
import type { FilmTrouble } from '@/data/maintenance/filmCheck';
import type { Unreadable } from '@/data/database/unreadable';
import type { Trashed } from '@/data/maintenance/trash';
import { MainBar } from '@/ui/mainBar';
import { Backups } from './Backups';
import { FilmTroubles } from './FilmTroubles';
import { GymFile } from './GymFile';
import { SettingsForm } from './SettingsForm';
import { Trash } from './Trash';
import { Unreadables } from './Unreadables';

/** The gym itself: its name and grades, its data in and out, what was deleted, the backups. */
export function GymScreen({
  settings,
  trash,
  backups,
  folder,
  keptDays,
  troubles,
  unreadable,
  notices,
  isOpen,
  isOwner,
}: {
  settings: Settings;
  trash: readonly Trashed[];
  backups: readonly Backup[];
  /** Where backups go. */
  folder: string;
  keptDays: number;
  troubles: readonly FilmTrouble[];
  unreadable: readonly Unreadable[];
  /** What the coach has to decide before Sinew goes on; see `UpkeepNotices`. */
  notices: ReactNode;
  /** To the gym's network. */
  isOpen: boolean;
  /** Whoever asks may take the gym out, in and back. */
  isOwner: boolean;
}) {
  return (
    <>
      <MainBar here="Gym" />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-16">
        {notices}
        <h1 className="font-serif text-[2.6rem] leading-none">{settings.name}.</h1>
        <div className="mt-6 grid gap-x-12 gap-y-9 lg:grid-cols-2">
          <SettingsForm key={JSON.stringify(settings)} settings={settings} />
          <div className="space-y-9">
            <section>
              <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Who comes in</h2>
              <p className="py-2">
                {isOpen
                  ? 'The gym is open to its network.'
                  : 'Phones at the mat and other coaches can come in once you open the gym to its own network.'}{' '}
                <Link href="/gym/people" className="underline underline-offset-4">
                  Coaches, phones, who did what
                </Link>
              </p>
            </section>
            <Backups backups={backups} folder={folder} isOwner={isOwner} />
            {isOwner && <GymFile />}
            <section>
              <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Your eye</h2>
              <p className="py-2">
                Mark strikes again without sight of the first marks, and Sinew knows which changes
                are larger than your own scatter.{' '}
                <Link href="/marking" className="underline underline-offset-4">
                  Mark again
                </Link>
              </p>
            </section>
            <section>
              <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
                When something goes wrong
              </h2>
              <p className="py-2">
                For whoever helps you: versions, counts and what Sinew wrote down of what it could
                not do. No film, no name, no mark is in it.
              </p>
              <a
                href="/api/support"
                className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
              >
                Save a support file
              </a>
            </section>
          </div>
          <FilmTroubles troubles={troubles} />
          <Unreadables cells={unreadable} />
          <Trash trash={trash} keptDays={keptDays} />
        </div>
      </main>
    </>
  );
}
