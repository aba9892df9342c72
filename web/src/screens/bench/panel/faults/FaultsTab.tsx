'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { ClipAnalysis } from '@sinew/core/analysis/analyzeClip';
import type { Look } from '@sinew/core/judge/eye/blindLook';
import { leakKey, type Says } from '@sinew/core/judge/eye/eyeChecks';
import { faultById } from '@sinew/core/judge/fault/faults';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import type { Decision } from '@/data/finding/findings';
import { Button } from '@/ui/button';
import { notNow, reopen } from '../../document/actions';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { addLook, setAudit } from '../../document/edits';
import { BlindLook, orderWords } from './BlindLook';
import { CantTell, SaidByEye } from './CantTell';
import { DismissDialog } from './DismissDialog';
import { Clear, headline } from './faultParts';
import { FaultRow } from './FaultRow';
import { useCue } from './useCue';
import { useLibrary } from '../../document/useAnalysis';
import { useCommands } from '@/ui/commands/registry';

/** The findings of the strike in hand, with the coach's word on each. */
export function FaultsTab({
  analysis,
  strike,
  decisions,
  onSet,
}: {
  analysis: ClipAnalysis;
  strike: StrikeDocument;
  decisions: readonly Decision[];
  /** Shows the set that the strike belongs to. */
  onSet: () => void;
}) {
  const store = useBenchStore();
  const { catalogue } = useLibrary();
  const technique = techniqueById(strike.technique);
  const { contact } = analysis.events;
  const [isLooking, setLooking] = useState(false);
  const [dismissing, setDismissing] = useState<Finding | null>(null);
  const { takeCue, rivalDialog, taking, isAsking } = useCue(strike.id, 'strike');
  const decisionOn = ({ fault }: Finding): Decision | undefined =>
    fault === taking
      ? { fault, status: 'accepted', reason: '', by: null, at: null }
      : decisions.find((one) => one.fault === fault);
  const of = (status: Finding['status']) =>
    analysis.findings.filter((finding) => finding.status === status);
  const firstOpen = of('found').find((finding) => !decisionOn(finding));

  /** Kept with the strike, by eye. */
  const say = (fault: string, says: Says | null) =>
    store.getState().edit(setAudit(documentOf(store.getState()), strike.id, leakKey(fault), says));

  const look = (one: Look | null) =>
    store.getState().edit(addLook(documentOf(store.getState()), strike.id, one));

  const startDismissing = async (finding: Finding) => {
    await store.getState().flush();
    setDismissing(finding);
  };
  const leaveForLater = async (finding: Finding) => {
    await store.getState().flush();
    await notNow(strike.id, finding.fault).catch(() =>
      toast('Not kept: the server does not answer. Try again.'),
    );
  };

  const isFree = !isAsking && dismissing === null && firstOpen !== undefined;
  useCommands(() => [
    {
      id: 'look blind',
      keys: ['Shift+b'],
      words: 'look blind: who leaves first',
      group: 'Leaks',
      isOn: contact !== undefined && !isLooking,
      run: () => setLooking(true),
    },
  ]);
  useCommands(() =>
    [
      {
        id: 'use cue',
        keys: ['Enter'],
        words: 'use the cue of the first leak',
        run: () => firstOpen && takeCue(firstOpen),
      },
      {
        id: 'dismiss',
        keys: ['n'],
        words: 'wrong: dismiss the first leak',
        run: () => firstOpen && void startDismissing(firstOpen),
      },
      {
        id: 'later',
        keys: ['j'],
        words: 'later: leave the first leak open',
        run: () => firstOpen && void leaveForLater(firstOpen),
      },
    ].map((one) => ({ ...one, group: 'Leaks', isOn: isFree })),
  );

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
      <h2 className="font-serif text-2xl leading-tight">
        {headline(
          analysis.findings.filter((one) => !isPutAside(decisionOn(one))),
          (id) => faultById(id, catalogue)?.headline,
        )}
      </h2>
      <Provisional strike={strike} onSet={onSet} />
      {of('found').some(({ injury }) => injury) && (
        <p className="mt-2 border-l-4 border-now pl-3 font-semibold">
          This can hurt the student. No power work until you have cleared it.
        </p>
      )}
      <ol className="mt-3">
        {of('found').map((finding) => (
          <FaultRow
            key={finding.fault}
            finding={finding}
            decision={decisionOn(finding)}
            onReopen={() => {
              // What is still on its way cannot be taken back yet.
              if (taking !== finding.fault) void reopen(strike.id, finding.fault);
            }}
            actions={
              <>
                <Button
                  weight="main"
                  hint={finding === firstOpen ? 'Enter' : undefined}
                  onClick={() => takeCue(finding)}
                >
                  Use this cue
                </Button>
                <Button
                  hint={finding === firstOpen ? 'N' : undefined}
                  onClick={() => void startDismissing(finding)}
                >
                  Wrong
                </Button>
                <Button
                  hint={finding === firstOpen ? 'J' : undefined}
                  onClick={() => void leaveForLater(finding)}
                >
                  Later
                </Button>
              </>
            }
          />
        ))}
      </ol>
      <CantTell
        findings={of('cant-tell')}
        onSay={(fault, isThere) => say(fault, isThere ? 'drags' : 'drives')}
        onLook={contact ? () => setLooking(true) : undefined}
      />
      <SaidByEye
        audit={strike.audit ?? {}}
        nameOf={(fault) => faultById(fault, catalogue)?.name}
        looks={(strike.looks ?? []).map(({ says }) => orderWords(technique)[says])}
        onTakeBack={(fault) => say(fault, null)}
        onTakeLooksBack={() => look(null)}
      />
      <Clear findings={of('clear')} />
      {isLooking && contact && (
        <BlindLook
          technique={technique}
          contact={contact.time}
          lead={analysis.readings['lead.hipsTrunk']}
          eye={analysis.rules.eye}
          onLook={look}
          onClose={() => setLooking(false)}
        />
      )}
      {dismissing && (
        <DismissDialog
          finding={dismissing}
          strikeId={strike.id}
          onDone={() => setDismissing(null)}
        />
      )}
      {rivalDialog}
    </>
  );
}

/** Dismissed, or left for later: it does not own the headline. */
const isPutAside = (decision: Decision | undefined) =>
  decision !== undefined && decision.status !== 'accepted';

/** One strike is a first word; with others of its kind there is a set to judge. */
function Provisional({ strike, onSet }: { strike: StrikeDocument; onSet: () => void }) {
  const kind = useBench(
    (state) =>
      documentOf(state).strikes.filter(
        (one) => one.technique === strike.technique && one.side === strike.side,
      ).length,
  );
  return (
    <p className="mt-1 text-sm text-soft">
      One strike: a first word, not a verdict.{' '}
      {kind > 1 && (
        <Button weight="quiet" className="!min-h-6 text-sm" onClick={onSet}>
          Judge the set of {kind} ({techniqueById(strike.technique).name.toLowerCase()})
        </Button>
      )}
    </p>
  );
}
