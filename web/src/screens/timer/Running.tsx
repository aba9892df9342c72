'use client';

import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { spoken } from '@sinew/core/train/work/calls';
import { madeSlow, segmentsOf, WARM_AFTER, type Segment } from '@sinew/core/train/work/session';
import {
  advanced,
  into,
  isOver,
  jumped,
  paused,
  resumed,
  signalBetween,
  type Run,
} from '@sinew/core/train/work/timer';
import { logAll } from '@/screens/work/actions';
import { Button } from '@/ui/button';
import { callsOf, doneOf } from './done';
import { HurtDialog } from '@/screens/student/HurtDialog';
import { CAUTIONS } from '@sinew/core/foundation/drill/demand';
import { giveKeysBack } from '@/ui/giveKeysBack';
import { keepRun, type KeptRun } from '@/timer/keptRun';
import { inMinutes } from '@/ui/inMinutes';
import type { TimerStudent } from './SetUp';
import { bell, call, knock } from './sounds';
import { useCommands } from '@/ui/commands/registry';

/** Looks at the clock so often, ms. */
const LOOK = 100;

/** A session as it runs, to be read from across the room. */
export function Running({
  kept,
  today,
  everybody,
}: {
  kept: KeptRun;
  today: string;
  everybody: readonly TimerStudent[];
}) {
  const [isHurt, setHurt] = useState(false);
  const { session, run } = kept;
  const segments = useMemo(() => segmentsOf(session), [session]);
  const now = useClock(kept, segments);
  const segment = segments[run.index];
  const isPaused = run.pausedAt !== null;
  /** A gate is answered, not tapped away. */
  const isAsked = segment?.kind === 'work' && segment.isGate;
  const set = (next: Run) => keepRun({ ...kept, run: next });
  const jump = (by: number) => set(jumped(run, run.index + by, Date.now(), segments.length));
  const press = () => {
    if (!segment) return;
    if (isPaused) set(resumed(run, Date.now()));
    else if (segment.seconds === null && !isAsked) jump(1);
    else set(paused(run, Date.now()));
  };
  const end = () => set(jumped(run, segments.length, Date.now(), segments.length));
  /** Not clean: from here on it is a slow day. */
  const notClean = () => {
    if (!segment) return;
    const slow = madeSlow(session, segment.block);
    const count = segmentsOf(slow).length;
    keepRun({ ...kept, session: slow, run: jumped(run, run.index + 1, Date.now(), count) });
  };
  /** Somebody is hurt: everything stands still first. */
  const hurt = () => {
    if (segment && !isPaused) set(paused(run, Date.now()));
    setHurt(true);
  };
  useCommands(() =>
    [
      { id: 'pause', keys: [' '], words: 'pause, go on', run: press },
      { id: 'on', keys: ['ArrowRight'], words: 'the next round', run: () => jump(1) },
      { id: 'back', keys: ['ArrowLeft'], words: 'the round before', run: () => jump(-1) },
      { id: 'hurt', keys: ['h'], words: 'head contact or pain: stop', run: hurt },
    ].map((one) => ({ ...one, group: 'Timer', isOn: !isHurt })),
  );
  useAwake();

  if (isOver(run, segments) || !segment) {
    return <Finished kept={kept} today={today} onBack={() => jump(-1)} />;
  }
  const elapsed = into(run, now);
  const left = segment.seconds === null ? elapsed : Math.max(0, segment.seconds - elapsed);
  const shown = segment.seconds === null ? Math.floor(left) : Math.ceil(left);
  const said = lastCall(kept, run, elapsed);
  const next = segments.slice(run.index + 1).find(({ kind }) => kind === 'work');
  return (
    <main
      onClick={giveKeysBack}
      className={`flex h-[calc(100dvh-var(--bar,0px))] flex-col ${segment.kind === 'work' ? 'bg-ink text-paper' : 'bg-paper text-ink'}`}
    >
      <div className="flex flex-wrap items-baseline gap-x-6 px-8 pt-5">
        <h1 className="font-serif text-4xl">
          {segment.kind === 'work' ? segment.title : segment.kind === 'rest' ? 'Rest' : 'Get ready'}
        </h1>
        <span className="text-2xl opacity-80">{segment.block}</span>
        {isPaused && <span className="ml-auto text-2xl font-semibold">Stands still</span>}
      </div>
      <div className="relative flex min-h-0 flex-1 flex-col items-center justify-center">
        {!isAsked && (
          <button
            type="button"
            onClick={press}
            aria-label={isPaused ? 'Go on' : segment.seconds === null ? 'Done, next' : 'Pause'}
            className="absolute inset-0"
          />
        )}
        <span
          role="timer"
          className="text-[min(52vh,30vw)] leading-none font-semibold tabular-nums"
        >
          {inMinutes(shown)}
        </span>
        {said && (
          <span className="mt-2 text-[min(11vh,8vw)] leading-none font-semibold" aria-live="polite">
            {said} <span className="text-[0.45em] font-normal">{spoken(said)}</span>
          </span>
        )}
        {segment.seconds === null && !isAsked && (
          <span className="mt-2 text-2xl">Tap when it is done.</span>
        )}
        {isAsked && <Gate onClean={() => jump(1)} onNotClean={notClean} />}
        <Heeded segment={segment} students={kept.students} />
        {segment.intent === 'power' && <Cold begun={kept.begun} now={now} />}
      </div>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 px-8 pb-5 text-lg">
        <span>{next ? `Next: ${next.block}, ${next.title}` : 'The last one.'}</span>
        <span className="opacity-80">
          {segments.filter(({ kind }, i) => kind === 'work' && i < run.index).length} of{' '}
          {segments.filter(({ kind }) => kind === 'work').length} done
        </span>
        <Button weight="main" hint="H" onClick={hurt} className="!border-now !bg-now !text-paper">
          Head contact or pain
        </Button>
        <span className="ml-auto flex gap-3">
          {(
            [
              ['Back', '←', () => jump(-1)],
              [isPaused ? 'Go on' : 'Stand still', 'Space', press],
              ['Next', '→', () => jump(1)],
              ['End', '', end],
            ] as const
          ).map(([name, hint, act]) => (
            <Button
              key={name}
              hint={hint || undefined}
              onClick={act}
              className="!border-current !text-current hover:!bg-transparent hover:underline"
            >
              {name}
            </Button>
          ))}
        </span>
      </div>
      {isHurt && (
        <HurtDialog
          students={kept.students.length > 0 ? kept.students : everybody}
          today={today}
          action="Note it and end the session"
          onNoted={end}
          onDone={() => setHurt(false)}
        />
      )}
    </main>
  );
}

/** What was filmed is looked at before the session goes on. */
function Gate({ onClean, onNotClean }: { onClean: () => void; onNotClean: () => void }) {
  const own = '!border-current !text-current hover:!bg-transparent hover:underline text-xl';
  return (
    <div className="relative mt-4 flex flex-col items-center gap-3">
      <p className="text-2xl">Clean, all of them?</p>
      <div className="flex flex-wrap justify-center gap-4">
        <Button className={own} onClick={onClean}>
          Clean: go on
        </Button>
        <Button className={own} onClick={onNotClean}>
          Not clean: make it a slow day
        </Button>
      </div>
    </div>
  );
}

/** Power so soon after the start that nobody can be warm. */
function Cold({ begun, now }: { begun: number | undefined; now: number }) {
  const seconds = begun === undefined ? WARM_AFTER : (now - begun) / 1000;
  if (seconds >= WARM_AFTER) return null;
  return (
    <p role="alert" className="mt-3 max-w-4xl px-8 text-center text-xl font-semibold">
      Not five minutes since the start: nobody is warm yet. Warm up first, then full power.
    </p>
  );
}

/** What is to be heeded in this part, and who leaves it out. */
function Heeded({ segment, students }: { segment: Segment; students: KeptRun['students'] }) {
  const leaving = students.flatMap(({ name, leaves }) =>
    leaves.filter(({ block }) => block === segment.block).map(({ why }) => `${name} (${why})`),
  );
  const cautions = segment.asks.map((one) => CAUTIONS[one]);
  if (cautions.length === 0 && leaving.length === 0) return null;
  return (
    <div className="mt-3 max-w-4xl px-8 text-center text-xl">
      {cautions.length > 0 && <p>{cautions.join(' ')}</p>}
      {leaving.length > 0 && (
        <p className="font-semibold">Leaves this out: {leaving.join('; ')}.</p>
      )}
    </div>
  );
}

function lastCall(kept: KeptRun, run: Run, elapsed: number): string | null {
  const calls = callsOf(kept, run.index).filter(({ at }) => at <= elapsed);
  return calls[calls.length - 1]?.combination ?? null;
}

/** The time of the clock, with everything that is heard on the way. */
function useClock(kept: KeptRun, segments: readonly Segment[]): number {
  const [now, setNow] = useState(() => Date.now());
  const before = useRef({ run: kept.run, at: now });
  const look = useEffectEvent(() => {
    const at = Date.now();
    const run = advanced(kept.run, segments, at);
    const signal = signalBetween(before.current.run, run, segments, before.current.at, at);
    if (signal === 'bell') bell();
    else if (signal === 'warning') knock();
    const [from, to] = [into(run, before.current.at), into(run, at)];
    const due = callsOf(kept, run.index).find((one) => one.at > from && one.at <= to);
    if (due && run.pausedAt === null && kept.isSpoken) call(spoken(due.combination));
    before.current = { run, at };
    if (run !== kept.run) keepRun({ ...kept, run });
    setNow(at);
  });
  useEffect(() => {
    const timer = setInterval(() => look(), LOOK);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** Keeps the screen lit, where the browser can. */
function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    navigator.wakeLock?.request('screen').then(
      (got) => {
        lock = got;
        if (isOver) void got.release();
      },
      () => undefined,
    );
    return () => {
      isOver = true;
      void lock?.release();
    };
  }, []);
}

function Finished({ kept, today, onBack }: { kept: KeptRun; today: string; onBack: () => void }) {
  const [ended] = useState(() => Date.now());
  const [isSaving, setSaving] = useState(false);
  const { session, students } = kept;
  const blocks = doneOf(kept, ended);
  const names = students.map(({ name }) => name).join(', ');
  const save = async () => {
    setSaving(true);
    try {
      const wrong = await logAll(
        students.flatMap((student) =>
          blocks.flatMap(({ block, ...done }, i) => {
            // What somebody left out is not theirs.
            if (student.leaves.some((one) => one.block === block)) return [];
            return [
              {
                ...done,
                id: `${kept.id}-${i}-${student.id}`,
                studentId: student.id,
                prescriptionId: null,
                technique: null,
                day: today,
                clean: null,
                countedBy: 'timer' as const,
              },
            ];
          }),
        ),
      );
      if (wrong) return toast(wrong);
      keepRun(null);
      toast(`Logged for ${names}.`);
    } catch {
      toast('Not logged: the server does not answer. The session is kept here; try again.');
    } finally {
      setSaving(false);
    }
  };
  return (
    <main className="mx-auto max-w-2xl px-8 pt-16">
      <h1 className="font-serif text-[2.6rem] leading-none">{session.name}: over.</h1>
      <table className="mt-6 w-full">
        <tbody>
          {blocks.map((block) => (
            <tr key={block.name} className="border-b border-rule">
              <td className="py-2">{block.name}</td>
              <td className="py-2 text-right">
                {Math.round(block.seconds / 6) / 10} min
                {block.strikes > 0 && `, ${block.strikes} strikes`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-sm text-soft">
        Strikes are those called, and those that counted work asks for.
      </p>
      <div className="mt-6 flex flex-wrap gap-4">
        {students.length > 0 && blocks.length > 0 && (
          <Button weight="main" disabled={isSaving} onClick={() => void save()}>
            Log for {students.length > 3 ? `${students.length} students` : names}
          </Button>
        )}
        <Button onClick={() => keepRun(null)}>
          {students.length > 0 ? 'Do not log' : 'Close'}
        </Button>
        <Button weight="quiet" onClick={onBack}>
          Back to the last part
        </Button>
      </div>
    </main>
  );
}
