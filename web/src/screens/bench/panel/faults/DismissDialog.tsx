'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { TextField } from '@/ui/field';
import { dismiss } from '../../document/actions';

const REASONS = [
  'I marked it wrong',
  'It is meant that way',
  'Another leak comes first',
  'The film misleads',
];

/** Why a finding does not count: a tap, or the coach's own words. */
export function DismissDialog({
  finding,
  strikeId,
  onDone,
}: {
  finding: Finding;
  strikeId: string;
  onDone: () => void;
}) {
  const [text, setText] = useState('');
  const send = async (reason: string) => {
    try {
      if (!(await dismiss(strikeId, finding.fault, reason))) {
        toast('This leak is not there any more; nothing was changed.');
      }
      onDone();
    } catch {
      toast('Not kept: the server does not answer. Try again.');
    }
  };
  return (
    <Dialog isOpen onClose={onDone} title={`${finding.name}: why not?`}>
      <div className="grid grid-cols-2 gap-2">
        {REASONS.map((reason) => (
          <Button key={reason} onClick={() => void send(reason)}>
            {reason}
          </Button>
        ))}
      </div>
      <form
        className="mt-4 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) void send(text.trim());
        }}
      >
        <div className="flex-1">
          <TextField
            label="Or in your words"
            value={text}
            maxLength={300}
            onChange={(event) => setText(event.target.value)}
          />
        </div>
        <Button type="submit" weight="main" disabled={!text.trim()} className="h-10">
          Keep the reason
        </Button>
      </form>
    </Dialog>
  );
}
