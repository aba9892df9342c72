'use client';

import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { nameMachine, setUpOwner } from './actions';

/** What is written down as done by whoever sits here, while nobody signs in. */
export function MachineName({ name }: { name: string }) {
  const [typed, setTyped] = useState(name);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    toast((await nameMachine(typed).catch(() => LOST)) ?? 'Kept.');
  };
  return (
    <form className="space-y-3" onSubmit={(event) => void save(event)}>
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Who coaches here</h2>
      <TextField
        label="Your name"
        value={typed}
        maxLength={60}
        hint="Stands beside what you mark, accept and change on this machine."
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button type="submit">Keep</Button>
    </form>
  );
}

/** The first step to a gym with several coaches. */
export function OwnerForm() {
  const [given, setGiven] = useState({ name: '', passcode: '', again: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const write = (part: Partial<typeof given>) => setGiven((old) => ({ ...old, ...part }));
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (given.passcode !== given.again) return setProblem('The two passcodes are not the same.');
    setBusy(true);
    const { name, passcode } = given;
    setProblem(await setUpOwner({ name, passcode }, true).catch(() => LOST));
    setBusy(false);
  };
  return (
    <form noValidate className="space-y-4" onSubmit={(event) => void send(event)}>
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        Open the gym to phones and other coaches
      </h2>
      <p>
        First set up its owner: who says who else comes in. From then on everybody signs in, on this
        machine too.
      </p>
      <TextField
        label="The owner’s name"
        autoComplete="username"
        value={given.name}
        maxLength={60}
        onChange={(event) => write({ name: event.target.value })}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField
          label="Passcode"
          type="password"
          autoComplete="new-password"
          value={given.passcode}
          hint="At least eight letters or digits."
          onChange={(event) => write({ passcode: event.target.value })}
        />
        <TextField
          label="The same again"
          type="password"
          autoComplete="new-password"
          value={given.again}
          onChange={(event) => write({ again: event.target.value })}
        />
      </div>
      {problem && (
        <p role="alert" className="font-semibold text-now">
          {problem}
        </p>
      )}
      <Button type="submit" weight="main" disabled={isBusy}>
        Set up and open
      </Button>
    </form>
  );
}
