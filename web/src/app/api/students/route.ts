import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { allStudents } from '@/data/student/students';

/** Names to go to. */
export const GET = ownPagesOnly(async () => {
  const students = await allStudents(await database());
  return Response.json(
    students
      .filter(({ isArchived }) => !isArchived)
      .map(({ id, name, classGroup }) => ({ id, name, classGroup })),
    { headers: { 'cache-control': 'no-store' } },
  );
});
