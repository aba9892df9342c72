'use client';

import { useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { toast } from 'sonner';
import type { Analysis } from '@sinew/core/analyze';
import { faultById } from '@sinew/core/fault/catalogue';
import type { Finding } from '@sinew/core/fault/judge';
import { isAbsent, type Missing } from '@sinew/core/reading/reading';
import { landmarkName } from '@sinew/core/body/landmarks';
import type { StrikeDocument } from '@/data/benchDocument';
import type { Decision } from '@/data/findings';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { accept, reopen } from './actions';
import { NOT_WHILE_TYPING } from './BenchKeys';
import { useBenchStore } from './benchStore';
import { DismissDialog } from './DismissDialog';

/** The findings of the strike in hand, with the coach's word on each. */
export function Leaks({
  analysis,
  strike,
  decisions,
}: {
  analysis: Analysis;
  strike: StrikeDocument;
  decisions: readonly Decision[];
}) {
  const store = useBenchStore();
  const [dismissing, setDismissing] = useState<Finding | null>(null);
  const [rival, setRival] = useState<{ finding: Finding; text: string } | null>(null);
  const isBusy = useRef(false);
  const decisionOn = (finding: Finding) => decisions.find((one) => one.fault === finding.fault);
  const of = (status: Finding['status']) =>
    analysis.findings.filter((finding) => finding.status === status);
  const firstOpen = of('found').find((finding) => !decisionOn(finding));

  const use = async (finding: Finding, isReplacing: boolean) => {
    if (isBusy.current) return;
    isBusy.current = true;
    try {
      // What is kept is judged from what is saved, so everything goes to disk first.
      await store.getState().flush();
      const outcome = await accept(strike.id, finding.fault, isReplacing);
      setRival(outcome.kind === 'other-cue' ? { finding, text: outcome.text } : null);
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
  };
  const startDismissing = async (finding: Finding) => {
    await store.getState().flush();
    setDismissing(finding);
  };

  useHotkeys('enter', () => firstOpen && void use(firstOpen, false), {
    ...NOT_WHILE_TYPING,
    enabled: rival === null && dismissing === null,
    ignoreEventWhen: (event) =>
      (event.target as HTMLElement).closest('button, a, summary, [role=dialog], [role=tab]') !==
      null,
  });
  useHotkeys('n', () => firstOpen && void startDismissing(firstOpen), NOT_WHILE_TYPING);

  if (analysis.problems.length > 0) {
    return (
      <>
        <h2 className="font-serif text-2xl">The marks contradict each other.</h2>
        <ul className="mt-3 space-y-1">
          {analysis.problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      </>
    );
  }
  return (
    <>
      <h2 className="font-serif text-2xl leading-tight">{headline(analysis.findings)}</h2>
      {analysis.findings.length === 0 && (
        <p className="mt-2 text-soft">
          Sinew does not name leaks of elbows and kicks yet. What was measured stands under
          Readings; the verdict is yours.
        </p>
      )}
      <ol className="mt-3">
        {of('found').map((finding) => (
          <li key={finding.fault} className="border-t border-ink py-3">
            <h3 className="font-semibold">{finding.name}</h3>
            <p className="mt-0.5">
              {finding.evidence} <Jump frame={finding.frame} />
            </p>
            <p className="mt-0.5 text-soft">{faultById(finding.fault)?.why}</p>
            <Word
              decision={decisionOn(finding)}
              onReopen={() => void reopen(strike.id, finding.fault)}
            />
            {!decisionOn(finding) && (
              <div className="mt-2.5 flex gap-2.5">
                <Button
                  weight="main"
                  hint={finding === firstOpen ? 'Enter' : undefined}
                  onClick={() => void use(finding, false)}
                >
                  Use this cue
                </Button>
                <Button
                  hint={finding === firstOpen ? 'N' : undefined}
                  onClick={() => void startDismissing(finding)}
                >
                  Not so
                </Button>
              </div>
            )}
          </li>
        ))}
        {of('cant-tell').map((finding) => (
          <li key={finding.fault} className="border-t border-rule py-2.5">
            <div className="flex justify-between gap-4 text-soft">
              <h3 className="font-semibold">{finding.name}</h3>
              <span>can’t tell</span>
            </div>
            <p className="mt-0.5">
              {finding.evidence} <Place missing={missingOf(finding)} />
            </p>
          </li>
        ))}
      </ol>
      {of('clear').length > 0 && (
        <ul className="border-t border-rule pt-2.5 text-soft">
          {of('clear').map((finding) => (
            <li key={finding.fault} className="py-0.5">
              <span className="font-semibold">{finding.name}: no.</span> {finding.evidence}
            </li>
          ))}
        </ul>
      )}
      {dismissing && (
        <DismissDialog
          finding={dismissing}
          strikeId={strike.id}
          onDone={() => setDismissing(null)}
        />
      )}
      <Dialog isOpen={rival !== null} onClose={() => setRival(null)} title="One cue at a time.">
        <p className="text-base">
          The student is working on <q>{rival?.text}</q> for this strike. Which cue stays?
        </p>
        <div className="mt-5 flex flex-wrap gap-4">
          <Button weight="main" onClick={() => rival && void use(rival.finding, true)}>
            {rival && faultById(rival.finding.fault)?.cue}
          </Button>
          <Button onClick={() => setRival(null)}>Keep the present one</Button>
        </div>
      </Dialog>
    </>
  );
}

function headline(findings: readonly Finding[]): string {
  const found = findings.filter((finding) => finding.status === 'found');
  if (found[0]) return faultById(found[0].fault)!.headline;
  if (findings.length === 0) return 'Measured, not judged.';
  return findings.every((finding) => finding.status === 'clear')
    ? 'No leak in this strike.'
    : 'Nothing found so far.';
}

function missingOf(finding: Finding): Missing | undefined {
  const lacking = finding.judgedBy.map(({ measured }) => measured).find(isAbsent);
  return lacking?.missing;
}

function Jump({ frame }: { frame: number | null }) {
  const store = useBenchStore();
  if (frame === null) return null;
  return (
    <Button
      weight="quiet"
      className="!min-h-0 text-sm"
      onClick={() => store.getState().goTo(frame)}
    >
      Show frame {frame}
    </Button>
  );
}

/** Goes to the frame and takes up the point that a reading is waiting for. */
function Place({ missing }: { missing: Missing | undefined }) {
  const store = useBenchStore();
  const landmark = missing?.landmarks[0];
  if (!missing || !landmark) return null;
  return (
    <Button
      weight="quiet"
      className="!min-h-0 text-sm"
      onClick={() => {
        store.getState().goTo(missing.frame);
        store.getState().setTool({ kind: 'place', landmark });
      }}
    >
      Go and place the {landmarkName(landmark)}
    </Button>
  );
}

function Word({ decision, onReopen }: { decision: Decision | undefined; onReopen: () => void }) {
  if (!decision) return null;
  return (
    <p className="mt-2">
      <strong>
        {decision.status === 'accepted' ? 'Accepted.' : `Not so: ${decision.reason}.`}
      </strong>{' '}
      <Button weight="quiet" className="!min-h-0 text-sm" onClick={onReopen}>
        Take it back
      </Button>
    </p>
  );
}
