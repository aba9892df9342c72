import { notFound } from 'next/navigation';
import { clipSummaries } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { openHurts } from '@/data/student/hurtNotes';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { StudentPage } from '@/screens/student/StudentPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Student' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const [clips, cues, hurts] = await Promise.all([
    clipSummaries(db, id),
    activeCues(db, id),
    openHurts(db, id),
  ]);
  return <StudentPage student={student} clips={clips} cues={cues} hurts={hurts} today={today()} />;
}
