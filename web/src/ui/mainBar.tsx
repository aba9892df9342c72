import Link from 'next/link';
import type { ReactNode } from 'react';
import { TopBar } from './topBar';

const PLACES = [
  ['/', 'Floor'],
  ['/plan', 'Plan'],
  ['/films', 'Films'],
  ['/timer', 'Timer'],
  ['/library', 'Library'],
  ['/gym', 'Gym'],
] as const;

export type Place = (typeof PLACES)[number][1];

/** The head of the screens that are about the whole gym. */
export function MainBar({ here, right }: { here: Place; right?: ReactNode }) {
  return (
    <TopBar right={right}>
      {PLACES.map(([href, name]) =>
        name === here ? (
          <span key={href} className="font-semibold" aria-current="page">
            {name}
          </span>
        ) : (
          <Link key={href} href={href} className="text-soft hover:underline">
            {name}
          </Link>
        ),
      )}
    </TopBar>
  );
}
