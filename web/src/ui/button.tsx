import Link from 'next/link';
import type { ButtonHTMLAttributes, ComponentProps, ReactNode } from 'react';

type Weight = 'main' | 'plain' | 'quiet';

const LOOK: Record<Weight, string> = {
  main: 'bg-ink text-paper border border-ink hover:bg-soft',
  plain: 'bg-transparent text-ink border border-ink hover:bg-tint',
  quiet:
    'bg-transparent text-ink underline underline-offset-4 decoration-rule hover:decoration-ink',
};

const shape = (weight: Weight) =>
  `inline-flex min-h-9 items-center gap-2 whitespace-nowrap font-semibold transition-colors disabled:opacity-45 ${
    weight === 'quiet' ? 'px-0' : 'px-3.5'
  } ${LOOK[weight]}`;

interface Own {
  readonly weight?: Weight;
  /** The key that does the same. */
  readonly hint?: string;
  readonly children: ReactNode;
}

export function Button({
  weight = 'plain',
  hint,
  children,
  className = '',
  type = 'button',
  ...rest
}: Own & ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button type={type} className={`${shape(weight)} ${className}`} {...rest}>
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}

export function LinkButton({
  weight = 'plain',
  hint,
  children,
  className = '',
  ...rest
}: Own & ComponentProps<typeof Link>) {
  return (
    <Link className={`${shape(weight)} ${className}`} {...rest}>
      {children}
      {hint && <Key>{hint}</Key>}
    </Link>
  );
}

/** A key of the keyboard, drawn small beside what it does. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd aria-hidden className="border border-current px-1 font-sans text-[11px] leading-4">
      {children}
    </kbd>
  );
}
