'use client';

import type { Student } from '@/data/student/students';
import { inCm } from '@/screens/student/studentValues';
import { useState } from 'react';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { useKeptForm } from '@/ui/useKeptForm';
import { saveBands } from './actions';

/** What the bands are made of, and how far round each goes. */
export function GirthForm({ student }: { student: Student }) {
  const { kind, girths, seam } = student.bands;
  const { state, send, isSending } = useKeptForm(saveBands.bind(null, student.id), {
    values: {
      kind,
      hipsCm: inCm(girths.hips),
      ribsCm: inCm(girths.ribs),
      seam,
    } as Record<string, string>,
    errors: {},
    isSaved: false,
  });
  const { values, errors, isSaved } = state;
  const [made, setMade] = useState(values.kind);
  const isTape = made === 'tape';
  return (
    <form action={send} key={JSON.stringify(values)} noValidate className="space-y-3">
      {/* So that nobody writes over what somebody else has typed meanwhile. */}
      <input type="hidden" name="seen" value={JSON.stringify(student.bands)} />
      <SelectField
        label="Made of"
        name="kind"
        defaultValue={values.kind}
        onChange={(event) => setMade(event.target.value)}
      >
        <option value="printed">the printed sheets</option>
        <option value="tape">uneven strips of tape</option>
      </SelectField>
      <div className="grid grid-cols-3 items-start gap-3">
        <TextField
          label="Hips, cm"
          name="hipsCm"
          inputMode="decimal"
          defaultValue={values.hipsCm}
          error={errors.hipsCm}
        />
        <TextField
          label="Ribs, cm"
          name="ribsCm"
          inputMode="decimal"
          defaultValue={values.ribsCm}
          error={errors.ribsCm}
        />
        {isTape ? (
          <input type="hidden" name="seam" value={values.seam} />
        ) : (
          <SelectField label="Ends meet" name="seam" defaultValue={values.seam}>
            <option value="front">in front</option>
            <option value="back">behind</option>
          </SelectField>
        )}
      </div>
      {errors.form && (
        <p role="alert" className="font-semibold text-now">
          {errors.form}
        </p>
      )}
      <div className="flex items-center gap-4">
        <Button type="submit" weight="main" disabled={isSending}>
          Save
        </Button>
        {isSaved && (
          <span role="status" className="text-soft">
            Kept: from now on Sinew looks for these bands in new films.
          </span>
        )}
      </div>
    </form>
  );
}
