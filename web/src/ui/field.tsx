import type { ComponentProps, ReactNode, SelectHTMLAttributes } from 'react';
import { useId } from 'react';

interface Own {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly error?: string;
}

const box =
  'h-10 w-full border border-soft bg-field px-3 text-ink aria-invalid:border-now aria-invalid:border-2';

function Frame({
  id,
  label,
  hint,
  error,
  children,
}: Own & { readonly id: string; readonly children: ReactNode }) {
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      {children}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-sm text-soft">
          {hint}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} className="mt-1 text-sm font-semibold text-now">
          {error}
        </p>
      )}
    </div>
  );
}

const describedBy = (id: string, { hint, error }: Own) =>
  [hint && `${id}-hint`, error && `${id}-error`].filter(Boolean).join(' ') || undefined;

export function TextField(props: Own & ComponentProps<'input'>) {
  const id = useId();
  const { label, hint, error, className = '', ...rest } = props;
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <input
        id={id}
        className={`${box} ${className}`}
        aria-invalid={error ? true : undefined}
        aria-describedby={describedBy(id, props)}
        {...rest}
      />
    </Frame>
  );
}

export function SelectField(
  props: Own & SelectHTMLAttributes<HTMLSelectElement> & { readonly children: ReactNode },
) {
  const id = useId();
  const { label, hint, error, className = '', children, ...rest } = props;
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <select
        id={id}
        className={`${box} ${className}`}
        aria-describedby={describedBy(id, props)}
        {...rest}
      >
        {children}
      </select>
    </Frame>
  );
}
