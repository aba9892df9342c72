import type { CheckLine } from '@sinew/core/observe/footage/check';

const MARK: Record<CheckLine['verdict'], { readonly bar: string; readonly word: string }> = {
  good: { bar: 'h-4 bg-ink', word: 'good' },
  careful: { bar: 'h-4 border border-ink', word: 'careful' },
  poor: { bar: 'h-1.5 translate-y-2.5 bg-now', word: 'poor' },
  unknown: { bar: 'h-px translate-y-2 bg-soft', word: 'can’t tell' },
};

/** What a film is worth for what it was taken for: worst first, each with its reason. */
export function CheckLines({
  lines,
  isShort = false,
}: {
  lines: readonly CheckLine[];
  /** Without what follows and what to do. */
  isShort?: boolean;
}) {
  const order: CheckLine['verdict'][] = ['poor', 'careful', 'unknown', 'good'];
  const sorted = [...lines].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict));
  return (
    <ul>
      {sorted.map(({ about, verdict, says, so }) => (
        <li
          key={about}
          data-check={about}
          data-verdict={verdict}
          className={`grid grid-cols-[0.5rem_auto_1fr] gap-x-2.5 md:grid-cols-[0.5rem_4.6rem_1fr] border-b border-rule last:border-b-0 ${isShort ? 'py-1' : 'py-2'}`}
        >
          <span className={MARK[verdict].bar} />
          <span className={verdict === 'poor' ? 'font-semibold text-now' : 'text-soft'}>
            {MARK[verdict].word}
          </span>
          <span>
            {says} {so && !isShort && <span className="text-soft">{so}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
