'use client';

import { useSyncExternalStore } from 'react';
import type { Session } from '@sinew/core/train/work/session';
import { keptRun, subscribe } from '@/timer/keptRun';
import { Running } from './Running';
import { SetUp, type TimerStudent } from './SetUp';

/** Chooses a session, then runs it; a run that is kept goes on after a reload. */
export function TimerScreen(props: {
  students: readonly TimerStudent[];
  sessions: readonly Session[];
  asked: { readonly session: string | null; readonly student: string | null };
  today: string;
}) {
  const kept = useSyncExternalStore(subscribe, keptRun, () => null);
  return kept ? (
    <Running kept={kept} today={props.today} everybody={props.students} />
  ) : (
    <SetUp {...props} />
  );
}
