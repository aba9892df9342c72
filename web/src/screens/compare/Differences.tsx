import type { Change, Verdict } from '@sinew/core/train/progress/change';
import type { Difference } from '@sinew/core/train/progress/compare';
import { unitOf } from '@sinew/core/measure/measures/units';
import { quantity } from '@/manner/manner';

const WORDS = {
  better: 'better',
  worse: 'worse',
  changed: 'changed',
  noise: 'within noise',
  few: 'differs',
} as const;
/** Bar up, bar down, hollow, low: shape and word before colour. */
const MARK = {
  better: 'h-4 bg-ink',
  worse: 'h-1.5 translate-y-2.5 bg-now',
  changed: 'h-4 border border-ink',
  noise: 'h-0.5 translate-y-3.5 bg-soft',
  few: 'h-2.5 translate-y-1.5 border border-soft',
} as const;

/** Readings that differ really, those that do not, and those nobody can compare. */
export function Differences({ differences }: { differences: readonly Difference[] }) {
  const by = (...verdicts: readonly Verdict[]) =>
    differences.filter(({ change }) => 'verdict' in change && verdicts.includes(change.verdict));
  const [real, few, noise] = [by('better', 'worse', 'changed'), by('few'), by('noise')];
  const not = differences.filter(({ change }) => 'notComparable' in change);
  const reasons = new Map<string, string[]>();
  for (const { name, change } of not) {
    if ('notComparable' in change) {
      reasons.set(change.notComparable, [...(reasons.get(change.notComparable) ?? []), name]);
    }
  }
  return (
    <>
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {real.length === 0 ? 'Nothing really changed' : `Really changed, ${real.length}`}
      </h2>
      <ul>
        {real.map((one) => (
          <Row key={one.id} difference={one} />
        ))}
      </ul>
      {few.length > 0 && (
        <details className="border-b border-rule py-2.5" open>
          <summary className="font-semibold">These strikes differ, {few.length}</summary>
          <p className="mt-1.5">
            Strikes differ among themselves: only three or more on each side show that something has
            changed.
          </p>
          <ul className="mt-1.5">
            {few.map((one) => (
              <Row key={one.id} difference={one} />
            ))}
          </ul>
        </details>
      )}
      {noise.length > 0 && (
        <details className="border-b border-rule py-2.5">
          <summary className="font-semibold">Within noise, {noise.length}</summary>
          <ul className="mt-1.5">
            {noise.map((one) => (
              <Row key={one.id} difference={one} />
            ))}
          </ul>
        </details>
      )}
      {[...reasons].map(([why, names]) => (
        <details
          key={why}
          className="border-b border-rule py-2.5"
          open={real.length + few.length + noise.length === 0}
        >
          <summary className="font-semibold">
            Not comparable, {names.length}: {why}
          </summary>
          <p className="mt-1.5 text-soft">{names.join(', ')}.</p>
        </details>
      ))}
      <p className="mt-3 text-sm text-soft">
        Real is what differs by more than two honest measurements would in 95 of 100 cases, and by
        more than repeated marking does where that has been measured.
      </p>
    </>
  );
}

function Row({ difference: { id, name, change } }: { difference: Difference }) {
  if (!isMeasured(change)) return null;
  const { verdict, difference, noise } = change;
  const unit = unitOf(id);
  return (
    <li className="flex items-start gap-3 border-b border-rule py-2">
      <span aria-hidden className={`mt-0.5 inline-block w-2.5 shrink-0 ${MARK[verdict]}`} />
      <span className="flex-1">
        <span className="font-semibold">{name}</span>{' '}
        <span className="text-soft">{WORDS[verdict]}</span>
      </span>
      <span className="text-right whitespace-nowrap">
        {difference > 0 ? '+' : ''}
        {quantity(difference, unit)}
        <span className="block text-sm text-soft">noise to {quantity(noise, unit)}</span>
      </span>
    </li>
  );
}

function isMeasured(change: Change): change is Exclude<Change, { notComparable: string }> {
  return 'verdict' in change;
}
