'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { segmentsOf } from '@sinew/core/train/work/session';
import { advanced, into, isOver } from '@sinew/core/train/work/timer';
import { inMinutes } from '@/ui/inMinutes';
import { keptRun, subscribe } from './keptRun';

/** On every screen but its own: a session is running, and how long its round still goes. */
export function RunningSign() {
  const kept = useSyncExternalStore(subscribe, keptRun, () => null);
  const path = usePathname();
  const segments = useMemo(() => (kept ? segmentsOf(kept.session) : []), [kept]);
  const [now, setNow] = useState(() => Date.now());
  const isShown = kept !== null && path !== '/timer';
  useEffect(() => {
    if (!isShown) return;
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, [isShown]);
  if (!isShown) return null;
  const run = advanced(kept.run, segments, now);
  const segment = segments[run.index];
  const said =
    isOver(run, segments) || !segment
      ? 'over'
      : run.pausedAt !== null
        ? 'stands still'
        : segment.seconds === null
          ? segment.title
          : `${segment.kind === 'rest' ? 'rest ' : ''}${inMinutes(Math.ceil(Math.max(0, segment.seconds - into(run, now))))}`;
  return (
    <Link href="/timer" className="bg-ink px-2 font-semibold text-paper">
      Timer: {said}
    </Link>
  );
}
