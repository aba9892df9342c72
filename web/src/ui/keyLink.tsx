'use client';

import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { LinkButton } from './button';
import { useCommands } from './commands/registry';

/** A link that looks like a button and has a key of its own. */
export function KeyLink({
  href,
  hotkey,
  words,
  weight,
  children,
}: {
  href: string;
  /** One letter, or the name of a key, as shown beside the text. */
  hotkey: string;
  /** What it does, for the list of keys. */
  words: string;
  weight?: 'main' | 'plain';
  children: ReactNode;
}) {
  const router = useRouter();
  useCommands(() => [
    {
      id: `go ${href}`,
      keys: [hotkey.length === 1 ? hotkey.toLowerCase() : hotkey],
      words,
      group: 'Go',
      run: () => router.push(href),
    },
  ]);
  return (
    <LinkButton href={href} weight={weight} hint={hotkey}>
      {children}
    </LinkButton>
  );
}
