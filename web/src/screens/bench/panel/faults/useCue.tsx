'use client';

import { useRef, useState } from 'react';
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
  /** The leak whose cue is on its way to the disk: it stands as accepted meanwhile. */
  const [taking, setTaking] = useState<string | null>(null);
  const studentId = useBench((state) => state.clip.studentId);
  const technique = useBench(
    (state) => documentOf(state).strikes.find(({ id }) => id === strikeId)?.technique,
  );
  const giveWork = useGiveWork();
  /** The next key was pressed before the cue was on the disk: it is done when it is. */
  const wantsWork = useRef(false);
  useCommands(() => [
    {
      id: 'work',
      keys: ['u'],
      words: 'give the work for the cue',
      group: 'Leaks',
      isOn: taking !== null,
      run: () => {
        wantsWork.current = true;
      },
    },
  ]);
  const takeCue = async (finding: Finding, isReplacing = false) => {
    if (isBusy.current) return;
    isBusy.current = true;
    setTaking(finding.fault);
    wantsWork.current = false;
    try {
      // What is kept is judged from what is saved, so everything goes to disk first.
      await store.getState().flush();
      const outcome = await accept(strikeId, finding.fault, isReplacing, of);
      setRival(outcome.kind === 'other-cue' ? { finding, text: outcome.text } : null);
      if (outcome.kind === 'accepted' && wantsWork.current && technique) {
        void giveWork({ studentId, technique, fault: finding.fault });
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
      setTaking(null);
    }
  };
  const rivalFault = rival && faultById(rival.finding.fault, catalogue);
  const rivalDialog = (
    <Dialog isOpen={rival !== null} onClose={() => setRival(null)} title="One cue at a time.">
      <p className="text-base">
        The student is working on <q>{rival?.text}</q> for this strike. Which cue stays?
      </p>
      <div className="mt-5 flex flex-wrap gap-4">
        <Button weight="main" onClick={() => rival && void takeCue(rival.finding, true)}>
          {rivalFault && cueOf(rivalFault, rival!.finding.way)}
        </Button>
        <Button onClick={() => setRival(null)}>Keep the present one</Button>
      </div>
    </Dialog>
  );
  return { takeCue, rivalDialog, taking, isAsking: rival !== null };
}
