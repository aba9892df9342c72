'use client';

import { useEffect, useState } from 'react';
import { plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import type { Consent as Given, Student } from '@/data/student/students';
import { wholeDay } from '@/manner/manner';
import { AskDialog } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { useKeptForm } from '@/ui/useKeptForm';
import { endConsent, saveConsent, type FormState } from './actions';

/** The consent in force, or the form that records one. Without it no clip can be added. */
export function Consent({
  student,
  today,
  hasStore = false,
}: {
  student: Student;
  today: Day;
  /** Films lie in the organisation’s store, and not on this machine. */
  hasStore?: boolean;
}) {
  const [isEnding, setEnding] = useState(false);
  const [isChanging, setChanging] = useState(false);
  if (!student.consent) {
    return <ConsentForm student={student} given={null} today={today} hasStore={hasStore} />;
  }
  if (isChanging) {
    const done = () => setChanging(false);
    return <ConsentForm student={student} given={student.consent} today={today} onDone={done} />;
  }
  const { givenBy, name, givenOn, expiresOn } = student.consent;
  return (
    <>
      <p>
        Consent to be filmed from {givenBy === 'guardian' && 'the guardian '}
        <bdi>{name}</bdi>, {wholeDay(givenOn)}
        {expiresOn && (
          <>, until {wholeDay(expiresOn)}; on that day the films go, the numbers stay</>
        )}
        .
        <Button weight="quiet" className="ml-4 text-sm" onClick={() => setChanging(true)}>
          Change
        </Button>
        <Button weight="quiet" className="ml-4 text-sm" onClick={() => setEnding(true)}>
          Withdraw
        </Button>
      </p>
      {isEnding && <Withdraw student={student} today={today} onDone={() => setEnding(false)} />}
    </>
  );
}

function Withdraw({
  student,
  today,
  onDone,
}: {
  student: Student;
  today: Day;
  onDone: () => void;
}) {
  const [films, setFilms] = useState<'erase' | 'keep'>('erase');
  const [until, setUntil] = useState<string>(plusDays(today, 30));
  return (
    <AskDialog
      title={`Withdraw the consent for ${student.name}?`}
      action={films === 'erase' ? 'Withdraw and erase the films' : 'Withdraw'}
      leave="Keep the consent"
      onSave={() => endConsent(student.id, { films, until: films === 'keep' ? until : null })}
      onDone={onDone}
    >
      <p>
        No more clips can be added until consent is given again. What was measured stays: instants
        and readings are numbers.
      </p>
      <fieldset className="space-y-2">
        <legend className="mb-2 font-semibold">The films</legend>
        <label className="flex items-center gap-3">
          <input
            type="radio"
            name="films"
            className="size-5 accent-ink"
            checked={films === 'erase'}
            onChange={() => setFilms('erase')}
          />
          are erased now, from the backups too. This cannot be undone.
        </label>
        <label className="flex items-center gap-3">
          <input
            type="radio"
            name="films"
            className="size-5 accent-ink"
            checked={films === 'keep'}
            onChange={() => setFilms('keep')}
          />
          are kept until a day.
        </label>
      </fieldset>
      {films === 'keep' && (
        <div className="w-52">
          <TextField
            label="They go on"
            type="date"
            value={until}
            onChange={(event) => setUntil(event.target.value)}
          />
        </div>
      )}
    </AskDialog>
  );
}

function ConsentForm({
  student,
  given,
  today,
  hasStore = false,
  onDone,
}: {
  student: Student;
  /** The consent to mend; null for a new one. */
  given: Given | null;
  today: Day;
  hasStore?: boolean;
  onDone?: () => void;
}) {
  const isGuardian = given ? given.givenBy === 'guardian' : student.isMinor;
  const { state, send, isSending, formKey } = useKeptForm<FormState>(
    saveConsent.bind(null, student.id, given?.id ?? null),
    { values: {}, errors: {} },
  );
  const { values, errors, saved } = state;
  useEffect(() => {
    if (saved) onDone?.();
  }, [saved, onDone]);
  return (
    <form action={send} key={JSON.stringify(values)} noValidate className="max-w-4xl">
      {!given && (
        <p className="mb-3">
          <bdi>{student.name}</bdi>{' '}
          {student.isMinor
            ? 'is under 18. Before any clip, a guardian must consent to filming.'
            : 'must consent to being filmed before any clip.'}{' '}
          <span className="text-soft">
            {hasStore
              ? 'Clips lie in the store of your organisation.'
              : 'Clips stay on this machine.'}{' '}
            Local law may ask for more: ask.
          </span>
        </p>
      )}
      <input type="hidden" name="givenBy" value={isGuardian ? 'guardian' : 'student'} />
      <input type="hidden" name="key" value={formKey} suppressHydrationWarning />
      <div className="flex flex-wrap items-start gap-4">
        <div className="w-64">
          <TextField
            label={isGuardian ? 'Guardian’s name' : 'Given by'}
            name="name"
            dir="auto"
            defaultValue={values.name ?? given?.name ?? (isGuardian ? '' : student.name)}
            error={errors.name}
          />
        </div>
        <div className="w-44">
          <TextField
            label="On"
            name="givenOn"
            type="date"
            defaultValue={values.givenOn ?? given?.givenOn ?? today}
            error={errors.givenOn}
          />
        </div>
        <div className="w-52">
          <TextField
            label="Until"
            name="expiresOn"
            type="date"
            defaultValue={values.expiresOn ?? given?.expiresOn ?? ''}
            error={errors.expiresOn}
            hint="Empty: until withdrawn. On that day the films go."
          />
        </div>
        <Button type="submit" weight="main" disabled={isSending} className="mt-6 h-10">
          {given ? 'Keep' : 'Record consent'}
        </Button>
        {given && (
          <Button className="mt-6 h-10" onClick={onDone}>
            Cancel
          </Button>
        )}
      </div>
      {errors.form && (
        <p role="alert" className="mt-3 font-semibold text-now">
          {errors.form}
        </p>
      )}
    </form>
  );
}
