'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { z } from 'zod';
import { askBytes, wordsOf } from '@/api/client';
import { gymFileAnswer } from '@/api/endpoints';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';

type GymFileAnswer = z.infer<typeof gymFileAnswer>;

async function sendGymFile(file: File, isCheck: boolean): Promise<GymFileAnswer> {
  const address = `/api/gym${isCheck ? '?check' : ''}`;
  const response = await askBytes(address, { method: 'PUT', body: file });
  return gymFileAnswer.parse(await response.json());
}

const of = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;

/** The whole gym as one file: out, checked, in. */
export function GymFile() {
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [isChecked, setChecked] = useState(false);
  const [isBusy, setBusy] = useState(false);
  const send = async (chosen: File, isCheck: boolean) => {
    setBusy(true);
    setSaid(isCheck ? 'Checking every byte…' : 'Taking it over…');
    try {
      show(await sendGymFile(chosen, isCheck));
    } catch (error) {
      setFile(null);
      setChecked(false);
      setSaid(wordsOf(error));
    } finally {
      setBusy(false);
    }
  };
  const show = (answer: GymFileAnswer) => {
    if ('checked' in answer) {
      const { checked } = answer;
      setChecked(true);
      setSaid(
        `Sound: ${checked.gym}, ${of(checked.students, 'student')}, ${of(checked.clips, 'clip')}, ` +
          `${of(checked.strikes, 'strike')}, of ${pastTime(checked.madeAt)}.`,
      );
    } else {
      const { added, present } = answer.imported;
      setFile(null);
      setChecked(false);
      setSaid(
        `Taken over: ${of(added.students, 'student')} and ${of(added.clips, 'clip')}. ` +
          `Here already, and left as they are: ${of(present.students, 'student')} and ${of(present.clips, 'clip')}.`,
      );
      router.refresh();
    }
  };
  return (
    <section aria-label="The gym as a file">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">The gym as one file</h2>
      <p className="py-2 text-soft">
        All students, films, marks and work, to keep or to carry to another machine. It leaves this
        one only by your hand. What is here already stays as it is.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <a
          href="/api/gym"
          className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
        >
          Save the gym
        </a>
        <a
          href="/api/gym?kept"
          className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
        >
          Save it without what was put away
        </a>
        <label className="inline-flex min-h-9 cursor-pointer items-center border border-ink px-3.5 font-semibold focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink hover:bg-tint">
          Check a gym’s file
          <input
            type="file"
            accept=".zip,application/zip"
            className="sr-only"
            disabled={isBusy}
            onChange={(event) => {
              const chosen = event.target.files?.[0] ?? null;
              event.target.value = '';
              setFile(chosen);
              setChecked(false);
              if (chosen) void send(chosen, true);
            }}
          />
        </label>
        {file && isChecked && (
          <Button weight="main" disabled={isBusy} onClick={() => void send(file, false)}>
            Take it over
          </Button>
        )}
      </div>
      {said && (
        <p role="status" className="mt-3">
          {said}
        </p>
      )}
    </section>
  );
}
