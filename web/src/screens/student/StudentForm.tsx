'use client';

import { useActionState } from 'react';
import type { Student } from '@/data/students';
import { Button, LinkButton } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { saveStudent, type FormState } from './actions';

function valuesOf(student: Student | null): Record<string, string> {
  if (!student) return { stance: 'orthodox' };
  return {
    name: student.name,
    stance: student.stance,
    grade: student.grade,
    startedOn: student.startedOn ?? '',
    heightCm: student.heightM === null ? '' : String(Math.round(student.heightM * 1000) / 10),
    massKg: student.massKg === null ? '' : String(student.massKg),
    injuries: student.injuries,
    classGroup: student.classGroup,
    ...(student.isMinor && { isMinor: 'on' }),
  };
}

/** Add a student, or change one. */
export function StudentForm({ student }: { student: Student | null }) {
  const initial: FormState = { values: valuesOf(student), errors: {} };
  const [{ values, errors }, action, isSaving] = useActionState(
    saveStudent.bind(null, student?.id ?? null),
    initial,
  );
  return (
    // A new key after each answer lays the typed texts into fresh fields.
    <form action={action} key={JSON.stringify(values)} noValidate className="max-w-2xl space-y-5">
      <TextField
        label="Name"
        name="name"
        defaultValue={values.name}
        error={errors.name}
        autoFocus
      />
      <div className="grid gap-5 sm:grid-cols-2">
        <SelectField
          label="Stance"
          name="stance"
          defaultValue={values.stance}
          hint="Orthodox: the left foot leads. Southpaw: the right."
        >
          <option value="orthodox">Orthodox</option>
          <option value="southpaw">Southpaw</option>
        </SelectField>
        <TextField
          label="Training since"
          name="startedOn"
          type="date"
          defaultValue={values.startedOn}
          error={errors.startedOn}
        />
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
            label="Height, cm"
            name="heightCm"
            inputMode="decimal"
            defaultValue={values.heightCm}
            error={errors.heightCm}
          />
          <TextField
            label="Mass, kg"
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
      <label className="flex items-center gap-3 font-semibold">
        <input
          type="checkbox"
          name="isMinor"
          defaultChecked={values.isMinor === 'on'}
          className="size-5 accent-ink"
        />
        Under 18: a guardian must consent to filming
      </label>
      <div className="flex gap-4 pt-2">
        <Button type="submit" weight="main" disabled={isSaving}>
          {student ? 'Save' : 'Add the student'}
        </Button>
        <LinkButton href={student ? `/students/${student.id}` : '/'} weight="quiet">
          Cancel
        </LinkButton>
      </div>
    </form>
  );
}
