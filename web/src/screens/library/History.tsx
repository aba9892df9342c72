import type { LibraryEntry } from '@/data/gym/library';
import { inManner, instant } from '@/manner/manner';

/** Who changed what when, newest first. */
export function History({ entries }: { entries: readonly LibraryEntry[] }) {
  if (entries.length === 0) {
    return <p className="mt-5 text-soft">Nothing has been changed: all is as it comes.</p>;
  }
  return (
    <table className="mt-3 w-full border-collapse">
      <thead>
        <tr className="border-b-2 border-ink text-left text-sm text-soft">
          {['When', 'Who', 'What', 'Before', 'After'].map((name) => (
            <th key={name} className="py-2 pr-4 font-semibold">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {entries.map(({ at, by, what, before, after }, i) => (
          <tr key={i} className="border-b border-rule">
            <td className="py-2 pr-4 whitespace-nowrap">{instant(at)}</td>
            <td className="py-2 pr-4">{by}</td>
            <td className="py-2 pr-4 font-semibold">{what}</td>
            <td className="py-2 pr-4">{inManner(before)}</td>
            <td className="py-2 pr-4">{inManner(after)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
