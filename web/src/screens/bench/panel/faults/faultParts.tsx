import type { Finding } from '@sinew/core/judge/fault/finding';
import { inManner } from '@/manner/manner';

/** What stands over a list of findings: the first fault as a sentence, or that there is none. */
export function headline(
  findings: readonly Finding[],
  sentenceOf: (fault: string) => string | undefined,
): string {
  const found = findings.find((finding) => finding.status === 'found');
  if (found) return sentenceOf(found.fault) ?? found.name;
  return findings.every((finding) => finding.status === 'clear')
    ? 'No leak in this strike.'
    : 'Nothing found so far.';
}

/** FaultsTab that were looked for and are not there, folded away. */
export function Clear({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <details className="border-t border-rule py-2.5 text-soft">
      <summary className="font-semibold">
        Looked for and not there: {findings.length} {findings.length === 1 ? 'leak' : 'leaks'}
      </summary>
      <ul className="mt-1.5">
        {findings.map((finding) => (
          <li key={finding.fault} className="py-0.5">
            <span className="font-semibold">{finding.name}: no.</span> {inManner(finding.evidence)}
          </li>
        ))}
      </ul>
    </details>
  );
}
