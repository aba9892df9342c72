'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { nanoid } from 'nanoid';
import { ask, wordsOf } from '@/api/client';
import { CONSENT_HERE } from '@/api/endpoints';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';

/** Nobody is filmed without a consent; it can be given there and then, to whoever holds the phone. */
export function ConsentHere({
  studentId,
  name,
  isMinor,
  hasStore,
}: {
  studentId: string;
  name: string;
  isMinor: boolean;
  /** Films lie in the organisation’s store, and not in the gym. */
  hasStore: boolean;
}) {
  const router = useRouter();
  const [key] = useState(() => nanoid());
  const [by, setBy] = useState(isMinor ? '' : name);
  const [isSaid, setSaid] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const givenBy = isMinor ? 'guardian' : 'student';
      await ask(CONSENT_HERE, [], { key, studentId, givenBy, name: by });
      router.refresh();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <form className="mt-5 space-y-5" onSubmit={(event) => void send(event)}>
      <p className="border-l-4 border-now pl-3 font-semibold">
        {isMinor
          ? `${name} is under 18: a guardian consents before anybody films.`
          : `${name} has not consented to be filmed yet.`}
      </p>
      <p>
        {hasStore ? 'Clips lie in the store of this gym’s organisation' : 'Clips stay in this gym'},
        are seen by its coaches, and are erased when the consent is withdrawn, at any time.
      </p>
      <TextField
        label={isMinor ? 'The guardian’s name' : 'Name'}
        className="!h-12"
        value={by}
        maxLength={80}
        onChange={(event) => setBy(event.target.value)}
      />
      <label className="flex min-h-12 items-center gap-3">
        <input
          type="checkbox"
          className="size-6 accent-ink"
          checked={isSaid}
          onChange={(event) => setSaid(event.target.checked)}
        />
        {isMinor ? 'I am the guardian, and I consent.' : 'I consent.'}
      </label>
      {problem && (
        <p role="alert" className="font-semibold text-now">
          {problem}
        </p>
      )}
      <Button
        type="submit"
        weight="main"
        className="min-h-12 w-full justify-center"
        disabled={!isSaid || by.trim() === ''}
      >
        Record the consent
      </Button>
    </form>
  );
}
