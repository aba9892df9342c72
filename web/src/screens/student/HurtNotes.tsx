'use client';

import { useState } from 'react';
import { hurtInWords, whatToDo } from '@sinew/core/train/work/condition';
import type { OpenHurt } from '@/data/student/hurtNotes';
import { AskDialog } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { endHurtOf } from './hurtActions';

/** What hurts and is not over, with the coach's word that ends it. */
export function HurtNotes({ hurts }: { hurts: readonly OpenHurt[] }) {
  const [ending, setEnding] = useState<OpenHurt | null>(null);
  const [because, setBecause] = useState('');
  return (
    <>
      {hurts.map((hurt) => (
        <div key={hurt.id} className="mt-5 max-w-2xl border-l-4 border-now pl-3">
          <p className="font-semibold">
            {`${hurtInWords(hurt)[0]!.toUpperCase()}${hurtInWords(hurt).slice(1)}. Slow only until you say that it is over.`}
          </p>
          {hurt.words && <p>{hurt.words}</p>}
          <p>{whatToDo(hurt.place)}</p>
          <Button weight="quiet" className="!min-h-6 text-sm" onClick={() => setEnding(hurt)}>
            It is over
          </Button>
        </div>
      ))}
      {ending && (
        <AskDialog
          title={`Is it over: ${hurtInWords(ending)}?`}
          action="It is over"
          leave="Cancel"
          onSave={() => endHurtOf(ending.id, because)}
          onDone={() => {
            setEnding(null);
            setBecause('');
          }}
        >
          {ending.place === 'head' && (
            <p>After a blow to the head: only on a licensed clinician’s word.</p>
          )}
          <TextField
            label="Who says so, and what"
            value={because}
            maxLength={300}
            autoFocus
            onChange={(event) => setBecause(event.target.value)}
          />
        </AskDialog>
      )}
    </>
  );
}
