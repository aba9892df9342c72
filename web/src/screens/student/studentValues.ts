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
    heightCm: inCm(student.heightM),
    massKg: student.massKg === null ? '' : String(student.massKg),
    injuries: student.injuries,
    classGroup: student.classGroup,
  };
}

/** Fields that hold a measure, by the unit in which it is kept. */
export const MEASURED = { heightCm: 'cm', massKg: 'kg' } as const;

/** As typed: centimetres to a tenth. */
export const inCm = (metres: number | null) =>
  metres === null ? '' : String(Math.round(metres * 1000) / 10);

/** As a hidden field of the form. */
export const seenOf = (student: Student | null): string => JSON.stringify(valuesOf(student));
