import { fresh, ownPagesOnly } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { allStudents } from '@/data/student/students';

/** Everybody who trains here now, to be found by name. */
export const GET = ownPagesOnly(async () => {
  const students = await allStudents(await database());
  return fresh(
    students
      .filter(({ isArchived }) => !isArchived)
      .map(({ id, name, classGroup }) => ({ id, name, classGroup })),
  );
});
