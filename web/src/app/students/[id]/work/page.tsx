import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { libraryOf } from '@/data/gym/library';
import { nextFor } from '@/data/gym/standing';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { workOf } from '@/data/work/work';
import { WorkScreen } from '@/screens/work/WorkScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Work' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const day = today();
  const student = await studentById(db, id);
  if (!student) notFound();
  const [work, next, { catalogue }, cues] = await Promise.all([
    workOf(db, id),
    nextFor(db, student, day),
    libraryOf(db),
    activeCues(db, id),
  ]);
  if (!work) notFound();
  return (
    <WorkScreen
      student={student}
      work={work}
      cues={cues}
      next={next}
      drills={catalogue.drills}
      today={day}
    />
  );
}
