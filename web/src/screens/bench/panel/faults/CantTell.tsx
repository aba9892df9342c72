import { landmarkName } from '@sinew/core/foundation/body/landmarks';
import { leakKey, type Audit } from '@sinew/core/judge/eye/eyeChecks';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { isAbsent, type Missing } from '@sinew/core/foundation/reading/reading';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { useBenchStore } from '../../document/benchStore';

interface Props {
  readonly findings: readonly Finding[];
  /** The coach's word; left out where it is not asked for. */
  readonly onSay?: (fault: string, isThere: boolean) => void;
  /** Looks blind at who leaves first; left out where the strike cannot be shown. */
  readonly onLook?: () => void;
}

/** What cannot be told: first what is likely there, then all else by what would settle it. */
export function CantTell({ findings, ...says }: Props) {
  const isLikely = ({ open }: Finding) => open?.likely === 'there';
  return (
    <>
      <LikelyThere findings={findings.filter(isLikely)} {...says} />
      <Open findings={findings.filter((one) => !isLikely(one))} {...says} />
    </>
  );
}

function LikelyThere({ findings, onSay, onLook }: Props) {
  if (findings.length === 0) return null;
  return (
    <section aria-label="Likely there" className="border-t border-rule py-2.5">
      <h3 className="font-semibold">Likely there</h3>
      <p className="text-sm text-soft">
        Too close to call; of what reads like this, four in five or more are there.
      </p>
      <ul className="pt-1">
        {findings.map((finding) =>
          onSay ? (
            <AskTheEye key={finding.fault} finding={finding} onSay={onSay} onLook={onLook} />
          ) : (
            <li key={finding.fault} className="text-sm text-soft">
              {inShort(finding)}
            </li>
          ),
        )}
      </ul>
    </section>
  );
}

/** The coach's eye decides where it can see. */
function Open({ findings, onSay, onLook }: Props) {
  if (findings.length === 0) return null;
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const key = inManner(finding.open?.settle ?? finding.evidence);
    groups.set(key, [...(groups.get(key) ?? []), finding]);
  }
  return (
    <section aria-label="Can’t tell" className="border-t border-rule py-2.5">
      <div className="flex justify-between gap-4 text-soft">
        <h3 className="font-semibold">Can’t tell</h3>
        <span>{findings.length}</span>
      </div>
      <ul>
        {[...groups].map(([key, some]) => (
          <li key={key} className="py-1">
            <p>
              {key === 'Two cameras would.' ? 'Two cameras over one rectangle would show it.' : key}{' '}
              <Place missing={missingOf(some[0]!)} />
            </p>
            {onSay ? (
              <ul>
                {some.map((finding) => (
                  <AskTheEye key={finding.fault} finding={finding} onSay={onSay} onLook={onLook} />
                ))}
              </ul>
            ) : (
              <p className="text-sm text-soft">{some.map(inShort).join(', ')}</p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const LIKELY = { there: '', 'not-there': ', likely not there' } as const;

const inShort = ({ name, open }: Finding) =>
  open?.short ? `${name} (${inManner(open.short)}${open.likely ? LIKELY[open.likely] : ''})` : name;

/** Whether hips or trunk go first is asked: marks on both can tell it. */
const restsOnOrder = ({ judgedBy: [first] }: Finding) =>
  first !== undefined && 'reading' in first.limit && first.limit.reading === 'lead.hipsTrunk';

function AskTheEye({
  finding,
  onSay,
  onLook,
}: Required<Pick<Props, 'onSay'>> & Pick<Props, 'onLook'> & { readonly finding: Finding }) {
  const { fault, name } = finding;
  const store = useBenchStore();
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 text-sm">
      <span className="min-w-0 flex-1 text-soft">{inShort(finding)}</span>
      {restsOnOrder(finding) && (
        <Button
          weight="quiet"
          className="text-sm"
          hint="Shift P"
          onClick={() => store.getState().setTool({ kind: 'turn' })}
        >
          Mark the turn
        </Button>
      )}
      {restsOnOrder(finding) && onLook && (
        <Button weight="quiet" className="text-sm" hint="Shift B" onClick={onLook}>
          Look blind
        </Button>
      )}
      <Button
        weight="quiet"
        className="text-sm"
        aria-label={`${name}: I see it`}
        onClick={() => onSay(fault, true)}
      >
        I see it
      </Button>
      <Button
        weight="quiet"
        className="text-sm"
        aria-label={`${name}: it is not there`}
        onClick={() => onSay(fault, false)}
      >
        It is not there
      </Button>
    </li>
  );
}

/** What the coach's eye has said of leaks in this strike, each of which can be taken back. */
export function SaidByEye({
  audit,
  nameOf,
  looks,
  onTakeBack,
  onTakeLooksBack,
}: {
  audit: Audit;
  nameOf: (fault: string) => string | undefined;
  /** Who left first, in words, look by look. */
  looks: readonly string[];
  onTakeBack: (fault: string) => void;
  onTakeLooksBack: () => void;
}) {
  const said = Object.entries(audit).flatMap(([key, says]) => {
    const fault = key.startsWith(leakKey('')) ? key.slice(leakKey('').length) : null;
    const name = fault && nameOf(fault);
    return fault && name ? [{ fault, name, isThere: says === 'drags' }] : [];
  });
  if (said.length === 0 && looks.length === 0) return null;
  return (
    <section aria-label="By your eye" className="border-t border-rule py-2.5">
      <h3 className="font-semibold text-soft">By your eye</h3>
      <ul>
        {said.map(({ fault, name, isThere }) => (
          <li key={fault} className="flex items-baseline gap-4 text-sm">
            <span className="flex-1">
              {name}: {isThere ? 'there' : 'not there'}
            </span>
            <Button weight="quiet" className="text-sm" onClick={() => onTakeBack(fault)}>
              Take it back
            </Button>
          </li>
        ))}
        {looks.length > 0 && (
          <li className="flex items-baseline gap-4 text-sm">
            <span className="flex-1">Looking blind: {looks.join(', ').toLowerCase()}</span>
            <Button weight="quiet" className="text-sm" onClick={onTakeLooksBack}>
              Take them back
            </Button>
          </li>
        )}
      </ul>
      {said.length > 0 && (
        <p className="text-sm text-soft">A measurement that can tell goes before it.</p>
      )}
    </section>
  );
}

function missingOf(finding: Finding): Missing | undefined {
  const lacking = finding.judgedBy
    .map(({ measured }) => measured)
    .find((measured) => measured !== null && isAbsent(measured));
  return lacking && isAbsent(lacking) ? lacking.missing : undefined;
}

/** Goes to the frame and takes up the point that a reading is waiting for. */
function Place({ missing }: { missing: Missing | undefined }) {
  const store = useBenchStore();
  const landmark = missing?.landmarks[0];
  if (!missing || !landmark) return null;
  return (
    <Button
      weight="quiet"
      className="!min-h-6 text-sm"
      onClick={() => {
        store.getState().goTo(missing.frame);
        store.getState().setTool({ kind: 'place', landmark });
      }}
    >
      Go and place the {landmarkName(landmark)}
    </Button>
  );
}
