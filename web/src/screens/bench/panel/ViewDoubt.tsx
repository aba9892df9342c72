'use client';

import { useMemo } from 'react';
import { viewSeen } from '@sinew/core/observe/track/viewSeen';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { Button } from '@/ui/button';
import { useRemembered } from '@/ui/useRemembered';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { placedCamera } from '../document/edits';
import { useTracked } from '../document/useTracked';

/** The body in the film says that it was taken from elsewhere than declared: one press puts it right. */
export function ViewDoubt() {
  const store = useBenchStore();
  const declared = useBench((state) => documentOf(state).view);
  const clipId = useBench((state) => state.clip.id);
  const { base, tracking } = useTracked();
  const [isSaid, say] = useRemembered(`sinew-view ${clipId} ${declared}`);
  const seen = useMemo(
    () => (base ? viewSeen(tracking.track, declared) : null),
    [base, tracking, declared],
  );
  if (!seen || isSaid) return null;
  const name = (view: typeof seen) => VIEW_GUIDE[view].name.toLowerCase();
  return (
    <section
      aria-label="From where it was filmed"
      className="flex flex-wrap items-center gap-x-2.5 gap-y-2 border-b border-ink bg-tint px-5 py-2.5"
    >
      <p className="mr-1">
        This looks filmed <strong>{name(seen)}</strong>; it is down as {name(declared)}.
      </p>
      <Button
        weight="main"
        onClick={() => store.getState().edit(placedCamera(documentOf(store.getState()), seen))}
      >
        It was {name(seen)}
      </Button>
      <Button onClick={() => say('declared')}>No, {name(declared)}</Button>
    </section>
  );
}
