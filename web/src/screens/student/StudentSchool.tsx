'use client';

import { toast } from 'sonner';
import type { School } from '@sinew/core/judge/school/schools';
import { chooseForStudent } from '@/screens/library/actions';
import { Schools } from '@/screens/library/Schools';

/** The student's own choices of school, where they differ from the gym's. */
export function StudentSchool({ studentId, school }: { studentId: string; school: School }) {
  const own = Object.keys(school).length;
  return (
    <details>
      <summary className="mb-1 border-b-2 border-ink pb-1 text-base font-semibold">
        School{own > 0 ? `: ${own} of their own` : ': as the gym has it'}
      </summary>
      <Schools
        chosen={school}
        wait="gym"
        onChoose={(key, choice) => {
          const { [key]: _, ...rest } = school;
          chooseForStudent(studentId, choice ? { ...rest, [key]: choice } : rest).catch(() =>
            toast('Not kept: the server does not answer. Try again.'),
          );
        }}
      />
    </details>
  );
}
