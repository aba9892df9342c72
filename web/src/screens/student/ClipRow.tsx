'use client';

import Link from 'next/link';
import { useState } from 'react';
import { EVENTS } from '@sinew/core/events/events';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { VIEW_GUIDE } from '@sinew/core/technique/views';
import type { ClipSummary } from '@/data/clips';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { removeClip } from './actions';

export function ClipRow({ clip }: { clip: ClipSummary }) {
  const [isAsking, setAsking] = useState(false);
  const strikes = clip.strikes.map(
    (strike) =>
      `${techniqueById(strike.technique).name}, ` +
      (strike.isAutomatic ? 'automatic' : `${strike.marks} of ${EVENTS.length} marks`),
  );
  return (
    <li className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-rule py-3">
      <Link href={`/bench/${clip.id}`} className="w-72 truncate font-semibold hover:underline">
        {clip.fileName}
      </Link>
      <span className="w-36 text-soft">{VIEW_GUIDE[clip.view].name}</span>
      <span>{strikes.length > 0 ? strikes.join('; ') : 'nothing marked yet'}</span>
      <span className="ml-auto text-sm text-soft">{clip.createdAt.slice(0, 10)}</span>
      <Button weight="quiet" className="text-sm" onClick={() => setAsking(true)}>
        Delete
      </Button>
      <Dialog isOpen={isAsking} onClose={() => setAsking(false)} title={`Delete ${clip.fileName}?`}>
        <p>
          The film, its marks and the cues taken from it go for good. A copy on your phone or camera
          is not touched.
        </p>
        <div className="mt-5 flex gap-4">
          <Button weight="main" onClick={() => void removeClip(clip.id)}>
            Delete the clip
          </Button>
          <Button onClick={() => setAsking(false)}>Keep it</Button>
        </div>
      </Dialog>
    </li>
  );
}
