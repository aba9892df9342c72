/** A student as the form shows them: also what says whether somebody else has changed them meanwhile. */
import type { Student } from '@/data/student/students';

export function valuesOf(student: Student | null): Record<string, string> {
  if (!student) return { stance: 'orthodox' };
  return {
    name: student.name,
    bornOn: student.bornOn ?? '',
    stance: student.stance,
    grade: student.grade,
    startedOn: student.startedOn ?? '',
    heightCm: student.heightM === null ? '' : String(Math.round(student.heightM * 1000) / 10),
    massKg: student.massKg === null ? '' : String(student.massKg),
    injuries: student.injuries,
    classGroup: student.classGroup,
  };
}

/** As a hidden field of the form. */
export const seenOf = (student: Student | null): string => JSON.stringify(valuesOf(student));
