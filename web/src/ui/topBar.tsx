import Link from 'next/link';
import type { ReactNode } from 'react';
import { GoTo } from './goTo/GoTo';
import { KeysHelp } from './commands/KeysHelp';
import { RunningSign } from '@/timer/RunningSign';
import { SignedIn } from './asker';
import { LightSwitch } from './lightSwitch';

/** The line at the head of every screen: where one is, and what belongs to it. */
export function TopBar({ children, right }: { children?: ReactNode; right?: ReactNode }) {
  return (
    <header className="flex min-h-11 flex-wrap items-center gap-x-5 border-b border-ink px-4 print:hidden">
      <Link href="/" className="font-serif text-xl font-semibold">
        Sinew
      </Link>
      <nav aria-label="Where you are" className="flex flex-wrap items-center gap-x-5">
        {children}
      </nav>
      <div className="ml-auto flex items-center gap-x-5">
        {right}
        <RunningSign />
        <SignedIn />
        <span className="max-md:hidden">
          <KeysHelp />
        </span>
        <GoTo />
        <LightSwitch />
      </div>
    </header>
  );
}
