import { landmarkName } from '@sinew/core/foundation/body/landmarks';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { isAbsent, type Missing } from '@sinew/core/foundation/reading/reading';
import { Button } from '@/ui/button';
import { useBenchStore } from '../../document/benchStore';

/** What cannot be told, gathered by what would settle it. */
export function CantTell({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const key = finding.open?.settle ?? finding.evidence;
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
              {key === 'Two cameras would.' ? 'Two cameras would show it.' : key}{' '}
              <Place missing={missingOf(some[0]!)} />
            </p>
            <p className="text-sm text-soft">
              {some
                .map(({ name, open }) => (open?.short ? `${name} (${open.short})` : name))
                .join(', ')}
            </p>
          </li>
        ))}
      </ul>
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
