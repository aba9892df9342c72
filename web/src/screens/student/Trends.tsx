import Link from 'next/link';
import type { Alike } from '@/data/progress/trends';
import { inManner } from '@/manner/manner';

/** What gets better or worse over the sets that may be compared, in one sentence each. */
export function Trends({ studentId, alike }: { studentId: string; alike: readonly Alike[] }) {
  const [most] = alike;
  if (!most || most.goes.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2 border-b border-rule pb-1 font-semibold">
        <Link href={`/students/${studentId}/ledger`} className="hover:underline">
          Trend
        </Link>
      </h2>
      <ul className="space-y-1.5">
        {most.goes.slice(0, 3).map(({ id, sentence }) => (
          <li key={id}>{inManner(sentence)}</li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-soft">{most.label}</p>
    </section>
  );
}
