'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { archive, setPutAway } from './actions';

/** Off the Floor for a while, or gone. */
export function Archive({
  student,
}: {
  student: { readonly id: string; readonly name: string; readonly isArchived: boolean };
}) {
  const router = useRouter();
  const [isAsking, setAsking] = useState(false);
  const { id, name, isArchived } = student;
  const remove = async () => {
    try {
      await setPutAway('student', id, true);
      router.push('/');
      toast(`${name} is put away.`, {
        description: 'For good in 30 days; until then they can be brought back, also under Gym.',
        action: { label: 'Bring back', onClick: () => void setPutAway('student', id, false) },
        duration: 15_000,
      });
    } catch {
      toast('Not deleted: the server does not answer. Try again.');
    }
  };
  return (
    <>
      <Button onClick={() => void archive(id, !isArchived)}>
        {isArchived ? 'Back to the Floor' : 'Archive'}
      </Button>
      <Button weight="quiet" onClick={() => setAsking(true)}>
        Delete
      </Button>
      <Dialog isOpen={isAsking} onClose={() => setAsking(false)} title={`Delete ${name}?`}>
        <p>
          All films, marks, cues, work and notes go with them. For 30 days they can be brought back
          under Gym; then they are gone for good.
        </p>
        <div className="mt-5 flex gap-4">
          <Button weight="main" onClick={() => void remove()}>
            Delete {name}
          </Button>
          <Button onClick={() => setAsking(false)}>Keep</Button>
        </div>
      </Dialog>
    </>
  );
}
