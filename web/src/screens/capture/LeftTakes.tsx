'use client';

import { useEffect, useState } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { instant } from '@/manner/manner';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import type { LeftTake } from '@/video/takeAbout';
import { namedTake, takeStore } from '@/video/takeStore';
import type { FinishedTake } from './useTake';

/** Takes that a closed tab has left behind: looked at again, or thrown away. */
export function LeftTakes({
  studentId,
  onTake,
}: {
  studentId: string;
  onTake: (take: FinishedTake) => void;
}) {
  const [left, setLeft] = useState<readonly LeftTake[]>([]);
  const [isOpen, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    let isCurrent = true;
    takeStore()
      .left()
      .then(
        (found) => {
          if (!isCurrent) return;
          const own = found.filter((take) => take.about.studentId === studentId);
          setLeft(own);
          setOpen(own.length > 0);
        },
        () => undefined,
      );
    return () => {
      isCurrent = false;
    };
  }, [studentId]);

  const drop = (id: string) => {
    const rest = left.filter((take) => take.id !== id);
    setLeft(rest);
    if (rest.length === 0) setOpen(false);
  };
  const look = async ({ id, about }: LeftTake) => {
    const file = await takeStore().mend(id);
    if (!file) {
      await takeStore().remove(id);
      drop(id);
      setProblem('Of that take not one whole frame had been written; it is gone.');
      return;
    }
    drop(id);
    setOpen(false);
    onTake({ id, file: namedTake(file, about), about, problem: null });
  };
  if (left.length === 0 && problem === null) return null;
  return (
    <>
      {problem && (
        <span role="alert" className="text-sm font-semibold text-now">
          {problem}
        </span>
      )}
      {left.length > 0 && (
        <Button className="!min-h-7 text-sm max-md:!min-h-11" onClick={() => setOpen(true)}>
          {left.length} unkept {left.length === 1 ? 'take' : 'takes'}
        </Button>
      )}
      <Dialog isOpen={isOpen} onClose={() => setOpen(false)} title="A take was not finished">
        <p className="mb-3">
          The page was closed before it was kept. It is still in this browser, up to the last half
          second before the end.
        </p>
        <ul>
          {left.map((take) => (
            <li
              key={take.id}
              className="flex flex-wrap items-center gap-4 border-t border-rule py-3"
            >
              <span className="flex-1">
                {take.about.technique
                  ? techniqueById(take.about.technique).name
                  : 'Several strikes'}
                , {instant(take.about.startedAt)}
              </span>
              <Button weight="main" onClick={() => void look(take)}>
                Look at it
              </Button>
              <Button
                onClick={() => {
                  void takeStore().remove(take.id);
                  drop(take.id);
                }}
              >
                Throw it away
              </Button>
            </li>
          ))}
        </ul>
      </Dialog>
    </>
  );
}
