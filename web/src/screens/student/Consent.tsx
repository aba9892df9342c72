'use client';

import { useActionState, useState } from 'react';
import type { Student } from '@/data/students';
import { wholeDay } from '@/data/today';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { Dialog } from '@/ui/dialog';
import { endConsent, saveConsent } from './actions';

/** The consent in force, or the form that records one. Without it no clip can be added. */
export function Consent({ student, today }: { student: Student; today: string }) {
  const [isEnding, setEnding] = useState(false);
  if (student.consent) {
    const { givenBy, name, givenOn, expiresOn } = student.consent;
    return (
      <>
        <p>
          Consent to be filmed from {givenBy === 'guardian' ? `the guardian ${name}` : name},{' '}
          {wholeDay(givenOn)}
          {expiresOn && (
            <>, until {wholeDay(expiresOn)}; on that day the films go, the numbers stay</>
          )}
          .{' '}
          <Button weight="quiet" className="text-sm" onClick={() => setEnding(true)}>
            Withdraw
          </Button>
        </p>
        <Dialog
          isOpen={isEnding}
          onClose={() => setEnding(false)}
          title={`Withdraw the consent for ${student.name}?`}
        >
          <p>
            No more clips can be added until consent is given again. The clips that are here stay
            until you delete them, one by one, in the list below.
          </p>
          <div className="mt-5 flex gap-4">
            <Button
              weight="main"
              onClick={() => void endConsent(student.id).then(() => setEnding(false))}
            >
              Withdraw
            </Button>
            <Button onClick={() => setEnding(false)}>Keep it</Button>
          </div>
        </Dialog>
      </>
    );
  }
  return <ConsentForm student={student} today={today} />;
}

function ConsentForm({ student, today }: { student: Student; today: string }) {
  const [{ values, errors }, action, isSaving] = useActionState(
    saveConsent.bind(null, student.id),
    {
      values: {},
      errors: {},
    },
  );
  return (
    <form action={action} key={JSON.stringify(values)} noValidate className="max-w-3xl">
      <p className="mb-3">
        {student.isMinor
          ? `${student.name} is under 18. Before any clip, a guardian must consent to filming.`
          : `Before any clip, ${student.name} must consent to being filmed.`}{' '}
        <span className="text-soft">
          Clips stay on this machine. Local law may ask for more: ask.
        </span>
      </p>
      <input type="hidden" name="givenBy" value={student.isMinor ? 'guardian' : 'student'} />
      <div className="flex flex-wrap items-start gap-4">
        <div className="w-64">
          <TextField
            label={student.isMinor ? 'Guardian’s name' : 'Given by'}
            name="name"
            defaultValue={values.name ?? (student.isMinor ? '' : student.name)}
            error={errors.name}
          />
        </div>
        <div className="w-44">
          <TextField
            label="On"
            name="givenOn"
            type="date"
            defaultValue={values.givenOn ?? today}
            error={errors.givenOn}
          />
        </div>
        <div className="w-52">
          <TextField
            label="Until"
            name="expiresOn"
            type="date"
            defaultValue={values.expiresOn ?? ''}
            error={errors.expiresOn}
            hint="Empty: until withdrawn. On that day the films go."
          />
        </div>
        <Button type="submit" weight="main" disabled={isSaving} className="mt-6 h-10">
          Record consent
        </Button>
      </div>
    </form>
  );
}
