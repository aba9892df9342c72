import Link from 'next/link';
import type { ReactNode } from 'react';
import { TopBar } from './topBar';

const PAGES = [
  ['', 'Films'],
  ['/work', 'Work'],
  ['/ledger', 'Ledger'],
  ['/tests', 'Tests'],
  ['/card', 'Card'],
] as const;

export type StudentPlace = (typeof PAGES)[number][1];

/** The head of the screens that are about one student. */
export function StudentBar({
  student,
  here,
  right,
}: {
  student: { readonly id: string; readonly name: string };
  here: StudentPlace | null;
  right?: ReactNode;
}) {
  return (
    <TopBar right={right}>
      <Link href="/" className="text-soft hover:underline">
        Floor
      </Link>
      <span className="max-w-72 truncate font-semibold" title={student.name}>
        <bdi>{student.name}</bdi>
      </span>
      {PAGES.map(([path, name]) =>
        name === here ? (
          <span
            key={path}
            className="font-semibold underline underline-offset-4"
            aria-current="page"
          >
            {name}
          </span>
        ) : (
          <Link
            key={path}
            href={`/students/${student.id}${path}`}
            className="text-soft hover:underline"
          >
            {name}
          </Link>
        ),
      )}
    </TopBar>
  );
}
