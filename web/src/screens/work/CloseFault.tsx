'use client';

import { useState } from 'react';
import { AskDialog } from '@/ui/askDialog';
import { TextField } from '@/ui/field';
import { close } from './actions';

/** The coach's word that a fault is gone, with a reason that the ledger keeps. */
export function CloseFault({
  fault: { studentId, technique, fault },
  title,
  text,
  action,
  onDone,
}: {
  fault: { readonly studentId: string; readonly technique: string; readonly fault: string };
  title: string;
  text: string;
  action: string;
  onDone: () => void;
}) {
  const [because, setBecause] = useState('');
  return (
    <AskDialog
      title={title}
      action={action}
      leave="Leave it open"
      onSave={() => close({ studentId, technique, fault }, because)}
      onDone={onDone}
    >
      <p>{text}</p>
      <TextField
        label="Because"
        value={because}
        maxLength={300}
        autoFocus
        onChange={(event) => setBecause(event.target.value)}
      />
    </AskDialog>
  );
}
