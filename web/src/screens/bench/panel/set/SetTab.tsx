'use client';

import { useEffect, useState } from 'react';
import type { Finding, Outcome } from '@sinew/core/judge/fault/finding';
import { faultById } from '@sinew/core/judge/fault/faults';
import type { SetFinding } from '@sinew/core/judge/fault/set';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import type { Decision } from '@/data/finding/findings';
import type { SetReport } from '@/data/finding/judging';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { filmOf, Thumb } from '@/ui/thumb';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { CantTell } from '../faults/CantTell';
import { Clear, headline } from '../faults/faultParts';
import { useCue } from '../faults/useCue';
import { FaultRow } from '../faults/FaultRow';
import { reopen } from '../../document/actions';
import { useLibrary } from '../../document/useAnalysis';
import { ask } from '@/api/client';
import { SET_REPORT } from '@/api/endpoints';

type State =
  | { readonly kind: 'judging' }
  | { readonly kind: 'failed' }
  | { readonly kind: 'done'; readonly report: SetReport };

/** All strikes of one kind in the clip, judged as one. */
export function SetTab({
  strike,
  decisions,
}: {
  strike: StrikeDocument;
  decisions: readonly Decision[];
}) {
  const state = useReport(strike.id);
  const { catalogue } = useLibrary();
  const { takeCue, rivalDialog } = useCue(strike.id, 'set');
  if (state.kind === 'judging') {
    return (
      <p role="status" className="text-soft">
        Judging every {techniqueById(strike.technique).name.toLowerCase()} of this clip. You need
        not wait.
      </p>
    );
  }
  if (state.kind === 'failed') {
    return <p>The set could not be judged: the server does not answer. Nothing is lost.</p>;
  }
  const { strikes, findings, isProvisional, leftOut } = state.report;
  const found = findings.filter(({ status }) => status === 'found');
  return (
    <>
      <h2 className="font-serif text-2xl leading-tight">
        {headline(findings, (id) => faultById(id, catalogue)?.headline)}
      </h2>
      <p className="mt-1 text-sm text-soft">
        {strikes.length} × {techniqueById(strike.technique).name.toLowerCase()}, {strike.side}.{' '}
        {isProvisional
          ? 'Fewer than three: a first word, not a verdict.'
          : 'Judged by the median; ± joins how they scatter with how well each is known.'}
        {leftOut > 0 && ` ${leftOut} left out: the marks contradict each other.`}
      </p>
      <Strikes report={state.report} chosen={strike.id} />
      <ol className="mt-3">
        {found.map((finding) => (
          <FaultRow
            key={finding.fault}
            finding={finding}
            decision={decisions.find(({ fault }) => fault === finding.fault)}
            onReopen={() => void reopen(strike.id, finding.fault)}
            actions={
              <Button weight="main" onClick={() => takeCue(finding)}>
                Use this cue
              </Button>
            }
          >
            <Each finding={finding} report={state.report} />
          </FaultRow>
        ))}
      </ol>
      <Some findings={findings.filter((one) => one.status !== 'found' && one.shows > 0)}>
        {(finding) => <Each finding={finding} report={state.report} />}
      </Some>
      <CantTell
        findings={findings.filter((one) => one.status === 'cant-tell' && one.shows === 0)}
      />
      <Clear findings={findings.filter(({ status }) => status === 'clear')} />
      {rivalDialog}
    </>
  );
}

/** Judged anew whenever the strikes, or what they are judged by, have changed and are saved. */
function useReport(strikeId: string): State {
  const store = useBenchStore();
  const strikes = useBench((state) => documentOf(state).strikes);
  const placed = useBench((state) => documentOf(state).placed);
  const [state, setState] = useState<State>({ kind: 'judging' });
  useEffect(() => {
    const abort = new AbortController();
    const judge = async () => {
      await store.getState().flush();
      const report = await ask(SET_REPORT, [strikeId], undefined, { signal: abort.signal });
      setState({ kind: 'done', report });
    };
    judge().catch(() => {
      if (!abort.signal.aborted) setState({ kind: 'failed' });
    });
    return () => abort.abort();
  }, [store, strikeId, strikes, placed]);
  return state;
}

const SHAPE: Record<Outcome, string> = {
  found: 'h-3.5 w-3.5 bg-now',
  clear: 'h-3.5 w-3.5 border border-ink',
  'cant-tell': 'h-0.5 w-3.5 bg-soft',
};
const SAID: Record<Outcome, string> = {
  found: 'shows it',
  clear: 'does not show it',
  'cant-tell': 'can’t tell',
};

/** Goes to a strike of the set, at its contact. */
function useGoToStrike() {
  const store = useBenchStore();
  return ({ id, frame }: SetReport['strikes'][number]) => {
    store.getState().selectStrike(id);
    if (frame !== null) store.getState().goTo(frame);
  };
}

/** Every strike of the set at its contact, in the order in which they were thrown. */
function Strikes({ report: { strikes }, chosen }: { report: SetReport; chosen: string }) {
  const clipId = useBench((state) => state.clip.id);
  const frameTimes = useBench((state) => state.clip.frameTimes);
  const goTo = useGoToStrike();
  return (
    <ul aria-label="The strikes of the set" className="mt-3 flex flex-wrap gap-2">
      {strikes.map((one, i) => (
        <li key={one.id}>
          <button
            type="button"
            aria-label={`Strike ${i + 1} of the set`}
            aria-pressed={one.id === chosen}
            onClick={() => goTo(one)}
            className="block border-b-4 border-transparent pb-1 aria-pressed:border-ink"
          >
            <Thumb
              film={filmOf(clipId)}
              time={one.frame === null ? null : (frameTimes[one.frame] ?? null)}
              className="w-20"
            />
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What each strike says by itself: a filled box shows it, an empty one does not, a dash can't tell. */
function Each({ finding, report }: { finding: SetFinding; report: SetReport }) {
  const goTo = useGoToStrike();
  return (
    <div className="mt-1.5 flex items-center gap-3">
      <span className="text-sm">
        Shows in {finding.shows} of {finding.of}
      </span>
      <span className="flex gap-1.5">
        {report.strikes.map((one, i) => {
          const outcome = finding.each[i] ?? 'cant-tell';
          return (
            <button
              key={one.id}
              type="button"
              title={`Strike ${i + 1}: ${SAID[outcome]}`}
              aria-label={`Go to strike ${i + 1}, which ${SAID[outcome]}`}
              onClick={() => goTo(one)}
              className="grid size-6 place-items-center hover:bg-tint"
            >
              <span className={SHAPE[outcome]} />
            </button>
          );
        })}
      </span>
    </div>
  );
}

/** Leaks that some strikes show and the set does not. */
function Some({
  findings,
  children,
}: {
  findings: readonly SetFinding[];
  children: (finding: SetFinding & Finding) => React.ReactNode;
}) {
  if (findings.length === 0) return null;
  return (
    <section className="border-t border-rule py-2.5">
      <h3 className="font-semibold text-soft">Only now and then</h3>
      {findings.map((finding) => (
        <div key={finding.fault} className="mt-1.5">
          <p>
            <span className="font-semibold">{finding.name}.</span> {inManner(finding.evidence)}
          </p>
          {children(finding)}
        </div>
      ))}
    </section>
  );
}
