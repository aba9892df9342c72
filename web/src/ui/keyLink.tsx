'use client';

import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { LinkButton } from './button';

/** A link that looks like a button and has a key of its own. */
export function KeyLink({
  href,
  hotkey,
  weight,
  children,
}: {
  href: string;
  /** One letter, as shown beside the text. */
  hotkey: string;
  weight?: 'main' | 'plain';
  children: ReactNode;
}) {
  const router = useRouter();
  useHotkeys(hotkey.toLowerCase(), () => router.push(href));
  return (
    <LinkButton href={href} weight={weight} hint={hotkey}>
      {children}
    </LinkButton>
  );
}
