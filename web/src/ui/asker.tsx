'use client';

import { createContext, useContext, type ReactNode } from 'react';
import { useRemembered } from './useRemembered';

/** Who is signed in in this browser; null where nobody signs in. */
const AskerName = createContext<string | null>(null);

export function AskerProvider({ name, children }: { name: string | null; children: ReactNode }) {
  return <AskerName value={name}>{children}</AskerName>;
}

/** Whose name is written beside a change: who is signed in, else what was typed in this browser before. */
export function useCoachName(): {
  readonly by: string;
  readonly setBy: (name: string) => void;
  /** It is known, and not to be typed. */
  readonly isKnown: boolean;
} {
  const known = useContext(AskerName);
  const [typed, setBy] = useRemembered('sinew-coach');
  return { by: known ?? typed, setBy, isKnown: known !== null };
}

/** In the line at the head of every screen: who it is, and the way out. */
export function SignedIn() {
  const name = useContext(AskerName);
  if (name === null) return null;
  return (
    <form method="post" action="/sign-out" className="flex items-center gap-x-3">
      <span className="max-w-40 truncate text-soft">{name}</span>
      <button type="submit" className="min-h-9 underline underline-offset-4">
        Sign out
      </button>
    </form>
  );
}
