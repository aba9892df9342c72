import { notFound, redirect } from 'next/navigation';
import { database } from '@/data/database/database';
import { studentById } from '@/data/student/students';
import { MatLoop } from '@/screens/mat/MatLoop';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'A set' };

export default async function SetPage({ params }: { params: Promise<{ studentId: string }> }) {
  const { studentId } = await params;
  const student = await studentById(await database(), studentId);
  if (!student) notFound();
  // Consent is given on the page before.
  if (!student.consent) redirect(`/phone/${studentId}`);
  const { id, name, stance, heightM } = student;
  return <MatLoop student={{ id, name, stance, heightM }} />;
}
