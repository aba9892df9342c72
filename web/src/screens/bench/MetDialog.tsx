'use client';

import { useEffect, useState } from 'react';
import type { z } from 'zod';
import type { ClipDocument } from '@sinew/core/analysis/clipDocument';
import { ask, wordsOf } from '@/api/client';
import { BENCH } from '@/api/endpoints';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { useBenchStore } from './document/benchStore';
import { merge } from './document/merge';

type Newest = z.infer<typeof BENCH.answers>;

const clock = (at: string) => new Date(at).toTimeString().slice(0, 5);

/** Two coaches have worked in one clip: whose stands there is said by the one who saves later. */
export function MetDialog({ base, mine }: { base: ClipDocument; mine: ClipDocument }) {
  const store = useBenchStore();
  const { clip } = store.getState();
  const [newest, setNewest] = useState<Newest | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    ask(BENCH, [clip.id]).then(setNewest, (error: unknown) => setProblem(wordsOf(error)));
  }, [clip.id, tries]);
  const settle = (wanted: ClipDocument | null) => {
    if (newest) store.getState().settle(newest, wanted);
  };
  const merged = newest && merge(base, mine, newest.document);
  const who = newest?.saved;
  return (
    <>
      <span role="alert" className="text-sm font-semibold text-now">
        Not saved: changed by somebody else.
      </span>
      <Dialog
        isOpen
        onClose={() => undefined}
        title={
          who
            ? `${who.by} has changed this clip at ${clock(who.at)}.`
            : 'This clip has been changed meanwhile.'
        }
      >
        <p>While you were working on it. Nothing of either is lost until you choose.</p>
        {!newest && problem && (
          <p role="alert" className="mt-3 font-semibold text-now">
            {problem}
          </p>
        )}
        {merged && merged.meets.length > 0 && (
          <p className="mt-3">Both of you have set {merged.meets.slice(0, 6).join(', ')}.</p>
        )}
        <div className="mt-5 flex flex-wrap gap-4">
          {merged?.meets.length === 0 && (
            <Button weight="main" onClick={() => settle(merged.document)}>
              Keep both
            </Button>
          )}
          {!newest && problem && (
            <Button weight="main" onClick={() => setTries(tries + 1)}>
              Look again
            </Button>
          )}
          <Button disabled={!newest} onClick={() => settle(mine)}>
            Keep mine
          </Button>
          <Button disabled={!newest} onClick={() => settle(null)}>
            Take theirs
          </Button>
        </div>
      </Dialog>
    </>
  );
}
