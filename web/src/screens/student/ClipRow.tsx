'use client';

import { group, sum } from 'd3-array';
import Link from 'next/link';
import { useState } from 'react';
import { toast } from 'sonner';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import type { ClipSummary } from '@/data/clip/clips';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';
import { filmOf, Thumb } from '@/ui/thumb';
import { setPutAway } from './actions';
import { MoveClip } from './MoveClip';

/** "5 crosses and a lead hook, 3 marks left": what it shows, and how far it has been worked. */
function strikesInWords({ strikes }: ClipSummary): string {
  if (strikes.length === 0) return 'Nothing marked yet';
  const kinds = [...group(strikes, ({ technique }) => technique)].map(([id, same]) =>
    same.length === 1 ? techniqueById(id).name : `${same.length} × ${techniqueById(id).name}`,
  );
  const left = sum(strikes, ({ marksLeft }) => marksLeft);
  const state = strikes.some(({ isAutomatic }) => isAutomatic)
    ? 'automatic'
    : left === 0
      ? 'marked'
      : `${left} ${left === 1 ? 'mark' : 'marks'} left`;
  return `${kinds.join(', ')}, ${state}`;
}

export function ClipRow({ clip }: { clip: ClipSummary }) {
  const [isMoving, setMoving] = useState(false);
  const name = (
    <>
      <span className={`font-semibold ${clip.isPurged ? 'text-soft' : ''}`}>
        {strikesInWords(clip)}
      </span>{' '}
      <span title={clip.fileName} className="block max-w-80 truncate text-sm text-soft">
        <bdi>{clip.fileName}</bdi>
      </span>
    </>
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
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2.5">
      {clip.isPurged ? (
        <span className="aspect-video w-28 shrink-0 bg-tint" />
      ) : (
        <Link href={`/bench/${clip.id}`} tabIndex={-1} aria-hidden>
          <Thumb film={filmOf(clip.id)} time={clip.strikes[0]?.contactAt ?? null} />
        </Link>
      )}
      <div className="min-w-40 flex-1">
        {clip.isPurged ? (
          name
        ) : (
          <Link href={`/bench/${clip.id}`} className="block hover:underline">
            {name}
          </Link>
        )}
        {clip.notes.length > 0 && (
          <p className="line-clamp-2 font-serif text-base">{clip.notes.join(' · ')}</p>
        )}
        <div className="text-sm text-soft">
          {facts.join(', ')}
          {clip.isPurged && ': the film went with the consent; its numbers stay in the ledger'}
        </div>
      </div>
      <span className="text-sm text-soft">{pastTime(clip.createdAt)}</span>
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
