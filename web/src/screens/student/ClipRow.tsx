'use client';

import Link from 'next/link';
import { useState } from 'react';
import { toast } from 'sonner';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import type { ClipSummary } from '@/data/clip/clips';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';
import { setPutAway } from './actions';
import { MoveClip } from './MoveClip';

const markedInWords = (left: number) =>
  left === 0 ? 'marked' : `${left} ${left === 1 ? 'mark' : 'marks'} left`;

export function ClipRow({ clip }: { clip: ClipSummary }) {
  const [isMoving, setMoving] = useState(false);
  const strikes = clip.strikes.map(
    (strike) =>
      `${techniqueById(strike.technique).name}, ` +
      (strike.isAutomatic ? 'automatic' : markedInWords(strike.marksLeft)),
  );
  const facts = [
    VIEW_GUIDE[clip.view].name.toLowerCase(),
    clip.intent && INTENT_NAMES[clip.intent],
    clip.round && `round ${clip.round}`,
  ].filter(Boolean);
  const remove = async () => {
    try {
      await setPutAway('clip', clip.id, true);
      toast(`${clip.fileName} is put away.`, {
        description: 'For good in 30 days; until then it can be brought back, also under Gym.',
        action: { label: 'Bring it back', onClick: () => void setPutAway('clip', clip.id, false) },
        duration: 15_000,
      });
    } catch {
      toast('Not deleted: the server does not answer. Try again.');
    }
  };
  return (
    <li className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-rule py-3">
      {clip.isPurged ? (
        <span title={clip.fileName} className="w-72 truncate font-semibold text-soft">
          <bdi>{clip.fileName}</bdi>
        </span>
      ) : (
        <Link
          href={`/bench/${clip.id}`}
          title={clip.fileName}
          className="w-72 truncate font-semibold hover:underline"
        >
          <bdi>{clip.fileName}</bdi>
        </Link>
      )}
      <span className="w-52 text-soft">{facts.join(', ')}</span>
      <span>
        {clip.isPurged
          ? 'the film went with the consent; its numbers stay in the ledger'
          : strikes.length > 0
            ? strikes.join('; ')
            : 'nothing marked yet'}
      </span>
      <span className="ml-auto text-sm text-soft">{pastTime(clip.createdAt)}</span>
      {!clip.isPurged && (
        <Button weight="quiet" className="text-sm" onClick={() => setMoving(true)}>
          Move
        </Button>
      )}
      <Button weight="quiet" className="text-sm" onClick={() => void remove()}>
        Delete
      </Button>
      {isMoving && <MoveClip clip={clip} onDone={() => setMoving(false)} />}
    </li>
  );
}
