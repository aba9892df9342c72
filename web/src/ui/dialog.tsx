'use client';

import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A question or a short text over the page; Escape closes it. */
export function Dialog({
  isOpen,
  onClose,
  title,
  isWide = false,
  children,
}: {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly isWide?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <Radix.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[90dvh] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-ink bg-paper p-6 outline-none ${isWide ? 'w-[min(64rem,94vw)]' : 'w-[min(34rem,92vw)]'}`}
        >
          <Radix.Title className="mb-4 font-serif text-2xl leading-tight">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
