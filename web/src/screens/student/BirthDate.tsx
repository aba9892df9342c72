'use client';

import { useState } from 'react';
import type { Student } from '@/data/student/students';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { saveBirthDate } from './actions';

/** Asked once of students from before birth dates were kept. */
export function BirthDate({ student }: { student: Student }) {
  const [day, setDay] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const save = async () => {
    setBusy(true);
    setProblem(await saveBirthDate(student.id, day).catch(() => LOST));
    setBusy(false);
  };
  return (
    <form
      noValidate
      className="max-w-2xl border-l-4 border-now py-1 pl-5"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <p className="text-base">
        When was <bdi>{student.name}</bdi> born? Under 18 a guardian consents to filming; under 16
        there is no power work. Until you say, Sinew takes{' '}
        {student.isMinor ? 'them for under 16' : 'them for an adult'}.
      </p>
      <div className="mt-3 flex flex-wrap items-start gap-4">
        <div className="w-52">
          <TextField
            label="Born on"
            type="date"
            value={day}
            error={problem ?? undefined}
            onChange={(event) => setDay(event.target.value)}
          />
        </div>
        <Button type="submit" weight="main" className="mt-6 h-10" disabled={isBusy}>
          Keep
        </Button>
      </div>
    </form>
  );
}
