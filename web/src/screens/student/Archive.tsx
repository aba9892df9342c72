'use client';

import { Button } from '@/ui/button';
import { archive } from './actions';

export function Archive({ studentId, isArchived }: { studentId: string; isArchived: boolean }) {
  return (
    <Button onClick={() => void archive(studentId, !isArchived)}>
      {isArchived ? 'Back to the Floor' : 'Archive'}
    </Button>
  );
}
