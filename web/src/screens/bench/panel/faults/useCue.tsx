'use client';

import { useRouter } from 'next/navigation';
import { useOptimistic, useRef, useState, useTransition } from 'react';
import { toast } from 'sonner';
import { cueOf, faultById } from '@sinew/core/judge/fault/faults';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { accept } from '../../document/actions';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { useCommands } from '@/ui/commands/registry';
import { useLibrary } from '../../document/useAnalysis';
import { useGiveWork } from './useGiveWork';

/**
 * Makes a finding's cue the student's one cue; where there is another, asks which one stays.
 *
 * @param of whether the strike itself or its set is the evidence
 */
export function useCue(strikeId: string, of: 'strike' | 'set') {
  const store = useBenchStore();
  const { catalogue } = useLibrary();
  const [rival, setRival] = useState<{ finding: Finding; text: string } | null>(null);
  const isBusy = useRef(false);
  const [, start] = useTransition();
  /** The leak whose cue is on its way to the disk: it stands as accepted until the panel has the cue. */
  const [taking, setTaking] = useOptimistic<string | null>(null);
  const studentId = useBench((state) => state.clip.studentId);
  const technique = useBench(
    (state) => documentOf(state).strikes.find(({ id }) => id === strikeId)?.technique,
  );
  const router = useRouter();
  const giveWork = useGiveWork();
  /** What was asked for before the cue's own panel is there: done as soon as the cue is on the disk. */
  const isKept = useRef(false);
  const asked = useRef(new Map<string, () => void>());
  const whenKept = (id: string, what: () => void) => {
    if (isKept.current) what();
    else asked.current.set(id, what);
  };
  useCommands(() => [
    {
      id: 'work',
      keys: ['u'],
      words: 'give the work for the cue',
      group: 'Leaks',
      isOn: taking !== null && technique !== undefined,
      run: () =>
        whenKept('work', () => void giveWork({ studentId, technique: technique!, fault: taking! })),
    },
    {
      id: 'review',
      keys: ['Shift+r'],
      words: 'make a review to send home',
      group: 'Leaks',
      isOn: taking !== null,
      run: () => whenKept('review', () => router.push(`/students/${studentId}/card#review`)),
    },
  ]);
  const takeCue = (finding: Finding, isReplacing = false) => {
    if (isBusy.current) return;
    isBusy.current = true;
    isKept.current = false;
    asked.current.clear();
    start(async () => {
      setTaking(finding.fault);
      try {
        // What is kept is judged from what is saved, so everything goes to disk first.
        await store.getState().flush();
        const outcome = await accept(strikeId, finding.fault, isReplacing, of);
        setRival(outcome.kind === 'other-cue' ? { finding, text: outcome.text } : null);
        if (outcome.kind === 'accepted') {
          isKept.current = true;
          asked.current.forEach((what) => what());
        }
        if (outcome.kind === 'not-found') {
          toast(
            'This leak does not show in what was saved. Check that the marks are saved, and try again.',
          );
        }
      } catch {
        toast('The cue was not kept: the server does not answer. Try again.');
      } finally {
        isBusy.current = false;
      }
    });
  };
  const rivalFault = rival && faultById(rival.finding.fault, catalogue);
  const rivalDialog = (
    <Dialog isOpen={rival !== null} onClose={() => setRival(null)} title="One cue at a time.">
      <p className="text-base">
        The student is working on <q>{rival?.text}</q> for this strike. Which cue stays?
      </p>
      <div className="mt-5 flex flex-wrap gap-4">
        <Button weight="main" onClick={() => rival && takeCue(rival.finding, true)}>
          {rivalFault && cueOf(rivalFault, rival!.finding.way)}
        </Button>
        <Button onClick={() => setRival(null)}>Keep the present one</Button>
      </div>
    </Dialog>
  );
  return { takeCue, rivalDialog, taking, isAsking: rival !== null };
}
