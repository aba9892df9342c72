import { ownPagesOnly, there } from '@/app/api/answers';
import { gymFile } from '@/app/api/gym/gymFile';
import { database } from '@/data/database/database';
import { studentById } from '@/data/student/students';

interface Context {
  params: Promise<{ id: string }>;
}

/** Everything that is kept of one student, as a gym's file with nobody else in it. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  there(await studentById(await database(), id), {
    happened: 'This student is not in the list any more.',
  });
  return gymFile('student', { kind: 'student', id });
});
