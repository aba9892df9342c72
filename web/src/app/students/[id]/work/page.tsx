import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { libraryOf } from '@/data/gym/library';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { workOf } from '@/data/work/work';
import { WorkScreen } from '@/screens/work/WorkScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Work' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const [student, work, { catalogue }] = await Promise.all([
    studentById(db, id),
    workOf(db, id),
    libraryOf(db),
  ]);
  if (!student || !work) notFound();
  return <WorkScreen student={student} work={work} drills={catalogue.drills} today={today()} />;
}
