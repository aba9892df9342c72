'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import type { Student } from '@/data/student/students';
import { asShown, fieldUnit } from '@/manner/manner';
import { Button, LinkButton } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { useKeptForm } from '@/ui/useKeptForm';
import { saveStudent, type FormState } from './actions';
import { MEASURED, seenOf, valuesOf } from './studentValues';

/** Add a student, or change one. */
export function StudentForm({ student }: { student: Student | null }) {
  const router = useRouter();
  const { state, send, isSending, formKey } = useKeptForm<FormState>(
    saveStudent.bind(null, student?.id ?? null),
    { values: asShown(valuesOf(student), MEASURED), errors: {} },
  );
  const { values, errors, saved } = state;
  useEffect(() => {
    if (saved) router.push(`/students/${saved}`);
  }, [saved, router]);
  return (
    // A new key after each answer lays the typed texts into fresh fields.
    <form action={send} key={JSON.stringify(values)} noValidate className="max-w-2xl space-y-5">
      <input type="hidden" name="key" value={formKey} suppressHydrationWarning />
      <input type="hidden" name="seen" value={seenOf(student)} />
      <TextField
        label="Name"
        name="name"
        dir="auto"
        defaultValue={values.name}
        error={errors.name}
        autoFocus
      />
      <div className="grid gap-5 sm:grid-cols-2">
        <TextField
          label="Born on"
          name="bornOn"
          type="date"
          defaultValue={values.bornOn}
          error={errors.bornOn}
          hint="Under 18 a guardian consents to filming; under 16 there is no power work."
        />
        <TextField
          label="Training since"
          name="startedOn"
          type="date"
          defaultValue={values.startedOn}
          error={errors.startedOn}
        />
        <SelectField
          label="Stance"
          name="stance"
          defaultValue={values.stance}
          hint="Orthodox: the left foot leads. Southpaw: the right."
        >
          <option value="orthodox">Orthodox</option>
          <option value="southpaw">Southpaw</option>
        </SelectField>
        <div className="grid grid-cols-2 gap-5">
          <TextField label="Grade" name="grade" defaultValue={values.grade} error={errors.grade} />
          <TextField
            label="Class"
            name="classGroup"
            defaultValue={values.classGroup}
            error={errors.classGroup}
          />
        </div>
        <div className="grid grid-cols-2 gap-5">
          <TextField
            label={`Height, ${fieldUnit('cm').unit}`}
            name="heightCm"
            inputMode="decimal"
            defaultValue={values.heightCm}
            error={errors.heightCm}
          />
          <TextField
            label={`Mass, ${fieldUnit('kg').unit}`}
            name="massKg"
            inputMode="decimal"
            defaultValue={values.massKg}
            error={errors.massKg}
          />
        </div>
      </div>
      <TextField
        label="Old injuries and stiff joints"
        name="injuries"
        defaultValue={values.injuries}
        error={errors.injuries}
        hint="What you must not forget when you choose the work."
      />
      {errors.form && (
        <p role="alert" className="font-semibold text-now">
          {errors.form}
        </p>
      )}
      <div className="flex gap-4 pt-2">
        <Button type="submit" weight="main" disabled={isSending || saved !== undefined}>
          {student ? 'Save' : 'Add the student'}
        </Button>
        <LinkButton href={student ? `/students/${student.id}` : '/'} weight="quiet">
          Cancel
        </LinkButton>
      </div>
    </form>
  );
}
