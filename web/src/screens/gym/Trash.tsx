'use client';

import { toast } from 'sonner';
import type { Trashed, TrashKind } from '@/data/maintenance/trash';
import { pastTime } from '@/data/database/today';
import { setPutAway } from '@/screens/student/actions';
import { Button } from '@/ui/button';

const KIND: Readonly<Record<TrashKind, string>> = {
  student: 'student',
  clip: 'clip',
  note: 'note',
  test: 'test',
  log: 'set',
};

/** What was deleted in the last weeks, and can be brought back. */
export function Trash({ trash, keptDays }: { trash: readonly Trashed[]; keptDays: number }) {
  const back = ({ kind, id, what }: Trashed) =>
    setPutAway(kind, id, false).then(
      () => toast(`${what} is back.`),
      () => toast('Not brought back: the server does not answer. Try again.'),
    );
  return (
    <section aria-label="Deleted" className="lg:col-span-2">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {trash.length === 0 ? 'Nothing deleted' : `Deleted, ${trash.length}`}
      </h2>
      <p className="py-2 text-soft">
        What you delete can be brought back for {keptDays} days; then it is gone for good, films
        with their files. Films whose consent ends go at once.
      </p>
      <ul>
        {trash.map((one) => (
          <li
            key={one.kind + one.id}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-2"
          >
            <span className="w-20 text-soft">{KIND[one.kind]}</span>
            <span className="min-w-0 flex-1 truncate font-semibold max-md:min-w-40">
              {one.what}
            </span>
            <span className="text-soft">{one.kind === 'student' ? '' : one.student}</span>
            <span className="text-sm text-soft">{pastTime(one.deletedAt)}</span>
            <Button className="!min-h-8" onClick={() => void back(one)}>
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
