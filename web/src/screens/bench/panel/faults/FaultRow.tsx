import type { ReactNode } from 'react';
import {
  costInShort,
  costInWords,
  isKnown,
  isTimed,
  timeInShort,
  timeInWords,
  type Cost,
} from '@sinew/core/judge/fault/cost';
import { faultById } from '@sinew/core/judge/fault/faults';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { isAbsent, type Reading } from '@sinew/core/foundation/reading/reading';
import { isOfReading } from '@sinew/core/judge/fault/schema';
import type { Decision } from '@/data/finding/findings';
import { inManner, instant } from '@/manner/manner';
import { Button } from '@/ui/button';
import { sourceInWords } from '../sources';
import { useBenchStore } from '../../document/benchStore';
import { useLibrary } from '../../document/useAnalysis';

/** One fault: what was seen, by which school, what it costs, and what is to be done about it. */
export function FaultRow({
  finding,
  decision,
  onReopen,
  actions,
  children,
}: {
  finding: Finding;
  decision: Decision | undefined;
  onReopen: () => void;
  actions: ReactNode;
  children?: ReactNode;
}) {
  const { catalogue } = useLibrary();
  const fault = faultById(finding.fault, catalogue);
  return (
    <li className="border-t border-ink py-3">
      <div className="flex items-baseline justify-between gap-4">
        <h3 className="font-semibold">
          {finding.name}
          {finding.injury && <span className="ml-2 text-sm text-now">can hurt</span>}
        </h3>
        <CostTag cost={finding.cost} />
      </div>
      <p className="mt-0.5">
        {inManner(finding.evidence)} <RestsOn finding={finding} /> <Show finding={finding} />
      </p>
      {children}
      {finding.judgedAs.length > 0 && (
        <p className="mt-0.5 text-sm text-soft">Judged as: {finding.judgedAs.join('; ')}.</p>
      )}
      <p className="mt-0.5 text-soft">{fault?.why}</p>
      <CostSentence cost={finding.cost} />
      {fault?.caution && <p className="mt-1 border-l-4 border-now pl-3 text-sm">{fault.caution}</p>}
      {decision ? (
        <Word decision={decision} onReopen={onReopen} />
      ) : (
        <div className="mt-2.5 flex flex-wrap gap-2.5">{actions}</div>
      )}
    </li>
  );
}

function CostTag({ cost }: { cost: Cost | null }) {
  const text = isKnown(cost) ? costInShort(cost) : isTimed(cost) ? timeInShort(cost) : null;
  return text && <span className="font-serif text-lg whitespace-nowrap">{text}</span>;
}

function costSentence(cost: Cost): string {
  if (isKnown(cost)) return `Costs ${costInWords(cost)}.`;
  if (isTimed(cost)) return `Costs ${timeInWords(cost)}.`;
  return `No figure in momentum. ${cost.unknown}`;
}

function CostSentence({ cost }: { cost: Cost | null }) {
  if (cost === null) return null;
  return <p className="mt-0.5 text-sm text-soft">{costSentence(cost)}</p>;
}

/** With blind looks in it, a reading that no film gave rests on them alone. */
function wordsOn(reading: Reading): string[] {
  const { source, looks = 0 } = reading;
  if (looks === 0) return [sourceInWords(reading)];
  const own = `your ${looks === 1 ? 'blind look' : `${looks} blind looks`}`;
  return source === 'eye' ? [own] : [sourceInWords(reading), own];
}

/** What the readings that decided it were taken from. */
function RestsOn({ finding: { judgedBy } }: { finding: Finding }) {
  const words = new Set(
    judgedBy.flatMap(({ measured }) => (measured && !isAbsent(measured) ? wordsOn(measured) : [])),
  );
  return words.size > 0 && <span className="text-sm text-soft">({[...words].join(', ')})</span>;
}

/** Goes to the frame that shows it, and draws there what was measured. */
function Show({ finding }: { finding: Finding }) {
  const store = useBenchStore();
  const { frame, judgedBy } = finding;
  const { limit, measured = null } = judgedBy[0] ?? {};
  if (frame === null || !limit || !isOfReading(limit)) return null;
  const isHere = measured === null || isAbsent(measured) || !measured.isElsewhere;
  return (
    <Button
      weight="quiet"
      className="!min-h-6 text-sm"
      onClick={() => {
        const { goTo, showEvidence } = store.getState();
        // What another film shows is drawn in none of this one's frames.
        if (isHere) showEvidence(limit.reading, frame);
        else goTo(frame);
      }}
    >
      Show frame {frame}
    </Button>
  );
}

const WORD: Record<Decision['status'], (reason: string) => string> = {
  accepted: () => 'Accepted.',
  dismissed: (reason) => `Wrong: ${reason}.`,
  later: () => 'Later.',
};

function Word({ decision, onReopen }: { decision: Decision; onReopen: () => void }) {
  return (
    <p className="mt-2">
      <strong>{WORD[decision.status](decision.reason)}</strong>{' '}
      {decision.by && decision.at && (
        <span className="text-sm text-soft">
          {decision.by}, {instant(decision.at)}{' '}
        </span>
      )}
      <Button weight="quiet" className="!min-h-6 text-sm" onClick={onReopen}>
        Take it back
      </Button>
    </p>
  );
}
