import { useCallback, useEffect, useRef, useState } from 'react';
import { Recorder } from '@/video/recorder';
import type { RecentFilm } from '@/video/recentFilm';
import { countBeep, endBeep, goBeep } from '@/video/sound';
import type { TakeAbout } from '@/video/takeAbout';
import { takeStore } from '@/video/takeStore';

export type TakeState =
  | { readonly kind: 'ready' }
  | { readonly kind: 'counting'; readonly left: number }
  | { readonly kind: 'recording'; readonly since: number }
  | { readonly kind: 'mending' }
  | { readonly kind: 'review'; readonly take: FinishedTake }
  | { readonly kind: 'failed'; readonly message: string };

export interface FinishedTake {
  readonly id: string;
  readonly file: File;
  readonly about: TakeAbout;
  /** Why it ended before its time; null when it did not. */
  readonly problem: string | null;
}

const COUNT_FROM = 3;
const SECOND = 1000;
/** The last beep has died away before the first frame is kept. */
const AFTER_GO = 400;

/**
 * One take from the count to the review.
 *
 * @param seconds how long a take is at most
 */
export function useTake(stream: MediaStream | null, seconds: number) {
  const [state, setState] = useState<TakeState>({ kind: 'ready' });
  const timers = useRef<ReturnType<typeof setTimeout>[]>([]);
  const recorder = useRef<Recorder | null>(null);
  const about = useRef<TakeAbout | null>(null);
  const problem = useRef<string | null>(null);

  const clearTimers = useCallback(() => {
    timers.current.forEach(clearTimeout);
    timers.current = [];
  }, []);
  const after = (milliseconds: number, act: () => void) => {
    timers.current.push(setTimeout(act, milliseconds));
  };

  const stop = useCallback(async () => {
    const running = recorder.current;
    if (!running) return;
    recorder.current = null;
    clearTimers();
    setState({ kind: 'mending' });
    endBeep();
    try {
      const { id, file } = await running.stop();
      if (file) {
        const take = { id, file, about: about.current!, problem: problem.current };
        setState({ kind: 'review', take });
      } else {
        await takeStore().remove(id);
        const message = problem.current ?? 'The camera gave no frame.';
        setState({ kind: 'failed', message: `${message} Nothing was recorded; film it again.` });
      }
    } catch (error) {
      setState({
        kind: 'failed',
        message:
          `The take could not be finished (${error instanceof Error ? error.message : String(error)}). ` +
          'What was recorded is still in this browser: reload the page to get it back.',
      });
    }
  }, [clearTimers]);

  /** Films at once. */
  const record = useCallback(
    async (of: Omit<TakeAbout, 'startedAt'>, recent: RecentFilm | null = null) => {
      if (!stream) return;
      about.current = { ...of, startedAt: new Date().toISOString() };
      problem.current = null;
      try {
        const failed = (message: string) => {
          problem.current = message;
          void stop();
        };
        recorder.current = await Recorder.start(stream, about.current, failed, recent);
        setState({ kind: 'recording', since: performance.now() });
        after(seconds * SECOND, () => void stop());
      } catch (error) {
        setState({
          kind: 'failed',
          message: `Recording does not start: ${error instanceof Error ? error.message : String(error)}. Nothing was recorded.`,
        });
      }
    },
    [stream, seconds, stop],
  );

  /** Three, two, one, and then film. */
  const countDown = useCallback(
    (of: Omit<TakeAbout, 'startedAt'>) => {
      if (!stream) return;
      clearTimers();
      for (let i = 0; i < COUNT_FROM; i++) {
        after(i * SECOND, () => {
          countBeep();
          setState({ kind: 'counting', left: COUNT_FROM - i });
        });
      }
      after(COUNT_FROM * SECOND, goBeep);
      after(COUNT_FROM * SECOND + AFTER_GO, () => void record(of));
    },
    [stream, record, clearTimers],
  );

  const callOff = useCallback(() => {
    clearTimers();
    setState({ kind: 'ready' });
  }, [clearTimers]);

  /** A take of an earlier tab is looked at like one just made. */
  const review = useCallback((take: FinishedTake) => setState({ kind: 'review', take }), []);

  // Leaving the page ends the recording; what was recorded is offered when the coach comes back.
  useEffect(
    () => () => {
      clearTimers();
      void recorder.current?.stop();
    },
    [clearTimers],
  );

  return { state, countDown, record, callOff, stop, review, toReady: callOff };
}
