'use client';

import { useState, type ReactNode } from 'react';
import { Button } from './button';
import { Dialog } from './dialog';

/** What stands there when an action could not be sent. */
export const LOST = 'Not kept: the server does not answer. Nothing is lost; try again.';

/** A short form over the page: it stays open, and says what is wrong, until it has been kept. */
export function AskDialog({
  title,
  action,
  leave = 'Cancel',
  onSave,
  onDone,
  isWide,
  other,
  children,
}: {
  title: string;
  /** What the main button does, and what the other one says. */
  action: string;
  leave?: string;
  /** @returns what is wrong, or null when it is kept */
  onSave: () => Promise<string | null>;
  /** Called when it is kept, or left. */
  onDone: () => void;
  isWide?: boolean;
  /** Something else that can be done, at the end of the row; it ends as saving does. */
  other?: { readonly label: string; readonly act: () => Promise<string | null> };
  children: ReactNode;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const end = async (act: () => Promise<string | null>) => {
    setSaving(true);
    const wrong = await act().catch(() => LOST);
    setSaving(false);
    setProblem(wrong);
    if (wrong === null) onDone();
  };
  return (
    <Dialog isOpen isWide={isWide} onClose={onDone} title={title}>
      <form
        noValidate
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          void end(onSave);
        }}
      >
        {children}
        {problem && (
          <p role="alert" className="font-semibold text-now">
            {problem}
          </p>
        )}
        <div className="flex flex-wrap gap-4">
          <Button type="submit" weight="main" disabled={isSaving}>
            {action}
          </Button>
          <Button onClick={onDone}>{leave}</Button>
          {other && (
            <Button
              weight="quiet"
              className="ml-auto"
              disabled={isSaving}
              onClick={() => void end(other.act)}
            >
              {other.label}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}
