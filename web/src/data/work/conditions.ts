/** What everybody may do, for screens that show a whole class. */
import type { Condition } from '@sinew/core/train/work/condition';
import { faultById } from '@sinew/core/judge/fault/faults';
import type { Db } from '../database/db';
import { openInjuries } from '../finding/studentFaults';
import { libraryOf } from '../gym/library';
import { hurtsByStudent } from '../student/hurtNotes';
import { allStudents } from '../student/students';

/** By student. Injuries are those accepted and not cleared. */
export async function conditions(db: Db): Promise<ReadonlyMap<string, Condition>> {
  const [students, hurts, injuries, { catalogue }] = await Promise.all([
    allStudents(db),
    hurtsByStudent(db),
    openInjuries(db),
    libraryOf(db),
  ]);
  return new Map(
    students.map(({ id, isJunior, grade }) => [
      id,
      {
        isJunior,
        grade,
        injuries: (injuries.get(id) ?? []).map((one) => faultById(one, catalogue)?.name ?? one),
        hurts: hurts.get(id) ?? [],
      },
    ]),
  );
}
