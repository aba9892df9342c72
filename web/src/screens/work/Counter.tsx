'use client';

import { nanoid } from 'nanoid';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { doseOf } from '@sinew/core/train/work/dose';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import type { Given } from '@/data/work/work';
import { Button } from '@/ui/button';
import { giveKeysBack } from '@/ui/giveKeysBack';
import { log } from './actions';
import { clearCount, keepCount, keptCount, subscribe, type Count } from './keptCount';
import { STANCE_NAMES } from './stanceNames';
import { useClap } from './useClap';
import { useCommands } from '@/ui/commands/registry';

/** Counts a set across the room: tap, Space or a clap; kept in the browser until it is logged. */
export function Counter({
  studentId,
  work,
  today,
  onDone,
}: {
  studentId: string;
  work: Given;
  today: string;
  onDone: () => void;
}) {
  const text = useSyncExternalStore(
    subscribe,
    () => keptCount(work.id),
    () => null,
  );
  const count: Count =
    text === null ? { id: '', strikes: 0, since: 0 } : (JSON.parse(text) as Count);
  const dose = doseOf(work.todaysDose ?? work.dose);
  const isTimed = dose?.of === 'seconds';
  const [isClapOn, setClapOn] = useState(false);
  const [clean, setClean] = useState('');
  const [isSaving, setSaving] = useState(false);
  const seconds = useSeconds(count.since);
  const goal = dose?.count ?? null;
  const shown = isTimed ? seconds : count.strikes;
  const isReached = goal !== null && shown >= goal;

  const add = (by: number) => {
    const now = Date.now();
    const begun = count.id ? count : { id: nanoid(), strikes: 0, since: now };
    keepCount(work.id, { ...begun, strikes: Math.max(0, begun.strikes + by) });
  };
  const problem = useClap(isClapOn, () => add(1));
  const save = async () => {
    if (isSaving) return;
    if (!count.id) return toast('Nothing was counted yet.');
    setSaving(true);
    try {
      const wrong = await log({
        id: count.id,
        studentId,
        prescriptionId: work.id,
        technique: work.technique,
        name: work.name,
        day: today,
        intent: work.intent,
        strikes: isTimed && count.strikes <= 1 ? 0 : count.strikes,
        seconds,
        clean: clean.trim() === '' ? null : Number(clean),
        countedBy: isClapOn ? 'clap' : 'tap',
      });
      if (wrong) return toast(wrong);
      clearCount(work.id);
      setClean('');
      toast(`Logged: ${isTimed ? `${seconds} s` : count.strikes}.`);
    } catch {
      toast('Not logged: the server does not answer. The count is kept here; try again.');
    } finally {
      setSaving(false);
    }
  };

  useCommands(() =>
    [
      { id: 'one more', keys: [' '], words: 'one more', run: () => add(1) },
      { id: 'one less', keys: ['Backspace'], words: 'one less', run: () => add(-1) },
      { id: 'log', keys: ['Enter'], words: 'log the set', run: () => void save() },
      {
        id: 'clap',
        keys: ['c'],
        words: 'count claps, or not',
        run: () => setClapOn((now) => !now),
      },
      { id: 'leave', keys: ['Escape'], words: 'back; the count is kept', run: onDone },
    ].map((one) => ({ ...one, group: 'Count' })),
  );

  return (
    <section
      aria-label={`Counter: ${work.name}`}
      onClick={giveKeysBack}
      className="fixed inset-0 z-30 flex flex-col bg-paper"
    >
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-ink px-6 py-3">
        <h2 className="font-serif text-3xl">{work.name}</h2>
        <span className="text-base text-soft">
          {work.todaysDose ?? work.dose}, {STANCE_NAMES[work.stances]}, {INTENT_NAMES[work.intent]}
        </span>
        <Button className="ml-auto" hint="Esc" onClick={onDone}>
          Close
        </Button>
      </div>
      <div className="relative flex min-h-0 flex-1 flex-col items-center justify-center">
        <button
          type="button"
          onClick={() => add(1)}
          aria-label="Count one"
          className="absolute inset-0"
        />
        <span
          role="timer"
          aria-live="off"
          className={`text-[min(46vh,34vw)] leading-none font-semibold tabular-nums ${isReached ? 'text-now' : ''}`}
        >
          {shown}
        </span>
        <span className="mt-2 text-2xl text-soft">
          {goal === null ? 'until form fades' : `of ${goal}${isTimed ? ' s' : ''}`}
          {dose && dose.sets * dose.sides > 1 && `, ${dose.sets * dose.sides} times`}
          {isReached && ': enough'}
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3 border-t border-ink px-6 py-4">
        <span className="text-soft">
          {isTimed ? 'The first tap starts the clock.' : 'Tap anywhere, Space, or clap.'} Backspace
          takes one back.
        </span>
        <Button hint="C" aria-pressed={isClapOn} onClick={() => setClapOn((now) => !now)}>
          {isClapOn ? 'Listening for claps' : 'Count claps'}
        </Button>
        {problem && (
          <span role="alert" className="text-now">
            {problem}
          </span>
        )}
        <label className="ml-auto flex items-center gap-3">
          <span className="font-semibold">Clean</span>
          <input
            type="number"
            min={0}
            max={count.strikes}
            inputMode="numeric"
            value={clean}
            placeholder="not judged"
            onChange={(event) => setClean(event.target.value)}
            className="h-10 w-32 border border-soft bg-field px-3"
          />
        </label>
        <Button weight="main" hint="Enter" disabled={isSaving} onClick={() => void save()}>
          Log the set
        </Button>
      </div>
    </section>
  );
}

/** Whole seconds since a moment; 0 before it. */
function useSeconds(since: number): number {
  const [now, setNow] = useState(since);
  useEffect(() => {
    if (since === 0) return;
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [since]);
  return since === 0 ? 0 : Math.max(0, Math.floor((now - since) / 1000));
}
