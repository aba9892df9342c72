'use client';

import { useMemo, useState } from 'react';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import type { ClipSummary } from '@/data/clip/clips';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';
import { ClipRow } from './ClipRow';

/** So many are on the page at once; older ones are a click, or a word to be found by, away. */
const AT_ONCE = 20;
/** With fewer there is nothing to search in. */
const MANY = 6;

/** A student's films, newest first, found by anything that is said of them. */
export function ClipList({ clips }: { clips: readonly ClipSummary[] }) {
  const [query, setQuery] = useState('');
  const [most, setMost] = useState(AT_ONCE);
  const texts = useMemo(() => new Map(clips.map((clip) => [clip.id, saidOf(clip)])), [clips]);
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const matching = clips.filter(({ id }) => words.every((word) => texts.get(id)!.includes(word)));
  const shown = matching.slice(0, most);
  return (
    <>
      {clips.length >= MANY && (
        <label className="my-3 flex w-72 max-w-full items-center gap-2 border-b border-soft text-sm">
          <span className="text-soft">Find</span>
          <input
            value={query}
            placeholder="cross, from the side, Nov"
            onChange={(event) => setQuery(event.target.value)}
            className="h-9 w-full bg-transparent outline-none placeholder:text-soft/60"
          />
        </label>
      )}
      <ul>
        {shown.map((clip) => (
          <ClipRow key={clip.id} clip={clip} />
        ))}
      </ul>
      {matching.length > shown.length && (
        <Button className="mt-4" onClick={() => setMost((now) => now + AT_ONCE)}>
          {matching.length - shown.length} more
        </Button>
      )}
      {clips.length > 0 && matching.length === 0 && (
        <p className="py-6 text-soft">No clip of which that is said.</p>
      )}
    </>
  );
}

/** What a clip is found by, in small letters. */
function saidOf(clip: ClipSummary): string {
  return [
    clip.fileName,
    VIEW_GUIDE[clip.view].name,
    pastTime(clip.createdAt),
    clip.createdAt.slice(0, 10),
    clip.intent,
    clip.round && `round ${clip.round}`,
    ...clip.notes,
    ...clip.strikes.map(({ technique, side }) => `${techniqueById(technique).name} ${side}`),
  ]
    .filter(Boolean)
    .join(' ')
    .toLowerCase();
}
