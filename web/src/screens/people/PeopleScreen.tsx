'use client';

import Link from 'next/link';
import type { Deed } from '@/data/access/deeds';
import type { Person } from '@/data/access/people';
import { reaches, type Asker } from '@/data/access/roles';
import type { SignIn } from '@/data/access/signIns';
import type { OpenDoor } from '@/data/door/door';
import { MainBar } from '@/ui/mainBar';
import { Deeds } from './Deeds';
import { Devices } from './Devices';
import { Network } from './Network';
import { MachineName, OwnerForm } from './OwnerForm';
import { PeopleList } from './PeopleList';

export interface Who {
  readonly asker: Asker;
  readonly people: readonly Person[];
  readonly devices: readonly SignIn[];
  /** What whoever sits at the machine is called while nobody signs in. */
  readonly machine: string;
  /** Null while it is shut. */
  readonly door: OpenDoor | null;
  readonly deeds: readonly Deed[];
  readonly isDemo: boolean;
}

/** Who comes in: the gym's network, its coaches, their phones, and who did what. */
export function PeopleScreen({ asker, people, devices, machine, door, deeds, isDemo }: Who) {
  const isOwner = reaches(asker.role, 'owner');
  const hasPeople = people.length > 0;
  return (
    <>
      <MainBar here="Gym" />
      <main className="mx-auto max-w-[1280px] px-4 pt-7 pb-16 sm:px-8">
        <p>
          <Link href="/gym" className="underline underline-offset-4">
            Gym
          </Link>
        </p>
        <h1 className="mt-2 font-serif text-[2.6rem] leading-none">Who comes in.</h1>
        <div className="mt-6 grid gap-x-12 gap-y-9 lg:grid-cols-2">
          <Network door={door} isOwner={isOwner} hasOwner={hasPeople} isDemo={isDemo} />
          <div className="space-y-9">
            {hasPeople ? (
              <PeopleList people={people} asker={asker} isOpen={door !== null} />
            ) : (
              <>
                <MachineName name={machine} />
                {!isDemo && <OwnerForm />}
              </>
            )}
            {hasPeople && <Devices devices={devices} asker={asker} />}
          </div>
          <Deeds deeds={deeds} />
        </div>
      </main>
    </>
  );
}
