'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import { Button } from '@/ui/button';
import { ProgressBar } from '@/ui/progressBar';
import { queue, startQueue, switchOff } from '@/tracking/queue';
import { changeJob, drop } from '@/tracking/requests';
import { stepName } from '@/tracking/words';

/** How much of the screen's foot the bar takes. */
const HEIGHT = '2.75rem';

/** At the foot of every screen while a body is being found somewhere: how far, and the way out. */
export function TrackingBar() {
  const current = useStore(queue, (state) => state.current);
  const jobs = useStore(queue, (state) => state.jobs);
  const isOff = useStore(queue, (state) => state.isOff);
  const waiting = jobs.filter(({ state }) => state === 'wanted');
  const isShown = current !== null || (isOff && waiting.length > 0);

  useEffect(startQueue, []);
  useSayDone();
  useEffect(() => {
    // Screens that fill the window leave room for it.
    document.documentElement.style.setProperty('--bar', isShown ? HEIGHT : '0px');
  }, [isShown]);

  if (!isShown) return null;
  const others = waiting.length - (current ? 1 : 0);
  return (
    <aside
      aria-label="Body tracking in the background"
      style={{ height: HEIGHT }}
      className="fixed inset-x-0 bottom-0 z-20 flex items-center gap-4 overflow-hidden border-t border-ink bg-tint px-4 text-sm whitespace-nowrap print:hidden"
    >
      {current ? (
        <>
          <span>
            {current.step ? stepName(current.step) : 'Getting ready'}:{' '}
            <Link href={`/bench/${current.job.clipId}`} className="font-semibold underline">
              {current.job.fileName}
            </Link>
          </span>
          {current.step && (
            <ProgressBar label="In the background" progress={current.step.progress} />
          )}
          {others > 0 && <span className="text-soft">{others} more after it</span>}
          <span className="ml-auto flex gap-2.5">
            <Button
              className="!min-h-7 !px-2"
              onClick={() => void changeJob(current.job.clipId, { kind: 'pause' }).catch(said)}
            >
              Pause
            </Button>
            <Button
              className="!min-h-7 !px-2"
              onClick={() => void drop(current.job.clipId).catch(said)}
            >
              Stop looking
            </Button>
            <Button className="!min-h-7 !px-2" onClick={() => switchOff(true)}>
              Switch off for all
            </Button>
          </span>
        </>
      ) : (
        <>
          <span>
            Body tracking is switched off in this browser;{' '}
            {waiting.length === 1 ? 'one film waits' : `${waiting.length} films wait`}.
          </span>
          <Button className="!min-h-7 !px-2" onClick={() => switchOff(false)}>
            Switch it on
          </Button>
        </>
      )}
    </aside>
  );
}

/** Says elsewhere in the app that a film is done; on its own bench it is seen. */
function useSayDone(): void {
  const router = useRouter();
  useEffect(
    () =>
      queue.subscribe(({ ended }, before) => {
        if (!ended || ended === before.ended) return;
        const bench = `/bench/${ended.job.clipId}`;
        if (location.pathname === bench) return;
        toast(
          ended.state === 'done'
            ? `${ended.job.fileName}: the body is found.`
            : `${ended.job.fileName}: the body was not found.`,
          { action: { label: 'See it', onClick: () => router.push(bench) }, duration: 10_000 },
        );
      }),
    [router],
  );
}

function said(error: unknown): void {
  toast(error instanceof Error ? error.message : String(error));
}
