'use client';

import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Upkeep } from '@/data/maintenance/maintain';
import { wholeDay } from '@/manner/manner';
import { dayIn } from '@/data/database/today';
import { confirmDate, putFilmsAside } from '@/screens/gym/actions';
import { LOST } from '@/ui/askDialog';
import { Button, LinkButton } from '@/ui/button';

const of = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;

/** What Sinew will not decide by itself: whether the date is right, and films that no clip names. */
export function UpkeepNotices({ upkeep, today }: { upkeep: Upkeep; today: Day }) {
  const { clock, waits, strays, isStoreAway } = upkeep;
  return (
    <>
      {isStoreAway && (
        <Notice title="The store of the films does not answer.">
          <p>
            Students, marks and readings are here, and no film is lost: they are shown again as soon
            as it is back. Until then no film can be added, and what is to be erased goes then.
          </p>
        </Notice>
      )}
      {strays?.isEmpty && (
        <Notice title="The gym is empty, but its films are here.">
          <p>
            {of(strays.films, 'film')} {strays.films === 1 ? 'lies' : 'lie'} in the data folder and
            no student has a clip: the database is new, or has been lost. The films are safe, and
            nothing is removed. Go back to a backup, and students and clips are here again.
          </p>
          <LinkButton href="/gym#backups">See the backups</LinkButton>
        </Notice>
      )}
      {strays && !strays.isEmpty && (
        <Notice
          title={`${of(strays.strays, 'film')} of ${strays.films} ${strays.strays === 1 ? 'belongs' : 'belong'} to no clip.`}
        >
          <p>
            A transfer that broke off leaves such films, and so does a database that is older than
            they are. If clips are missing, go back to a backup first. Nothing is removed until you
            say so.
          </p>
          <div className="flex flex-wrap items-center gap-4">
            <Act
              work={putFilmsAside}
              done="Put aside. They stay thirty days in the data folder, under set-aside."
            >
              Put them aside
            </Act>
            <LinkButton href="/gym#backups" weight="quiet">
              See the backups
            </LinkButton>
          </div>
        </Notice>
      )}
      {!clock.isBelieved && waits && (
        <Notice title={`Is today ${wholeDay(today)}?`}>
          <p>
            Sinew was last open on {wholeDay(dayIn(new Date(clock.since)))}. Until you say that the
            date is right, nothing is cleared away{waiting(waits)}. If it is wrong, set this
            machine’s clock: nothing has been removed.
          </p>
          <Act work={() => confirmDate(today)} done="Thank you. What was due has been done.">
            Yes, it is {wholeDay(today)}
          </Act>
        </Notice>
      )}
    </>
  );
}

function waiting({ films, putAway, backups }: NonNullable<Upkeep['waits']>): string {
  const all = [
    films > 0 && `${of(films, 'film')} whose consent has ended`,
    putAway > 0 && `${of(putAway, 'clip or student', 'clips and students')} put away`,
    backups > 0 && of(backups, 'old backup'),
  ].filter(Boolean);
  return all.length > 0 ? `; these would go: ${all.join(', ')}` : '';
}

function Notice({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section
      role="alert"
      className="mb-7 max-w-3xl space-y-3 border-l-4 border-now py-1 pl-5 text-base"
    >
      <h2 className="font-serif text-2xl leading-tight">{title}</h2>
      {children}
    </section>
  );
}

function Act({
  work,
  done,
  children,
}: {
  work: () => Promise<string | null>;
  done: string;
  children: ReactNode;
}) {
  const [isBusy, setBusy] = useState(false);
  const act = async () => {
    setBusy(true);
    toast((await work().catch(() => LOST)) ?? done);
    setBusy(false);
  };
  return (
    <Button weight="main" disabled={isBusy} onClick={() => void act()}>
      {children}
    </Button>
  );
}
