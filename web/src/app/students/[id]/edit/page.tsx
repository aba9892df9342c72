import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { studentById } from '@/data/student/students';
import { EditPage } from '@/screens/student/EditPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Change student' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const student = await studentById(await database(), (await params).id);
  if (!student) notFound();
  return <EditPage student={student} />;
}
