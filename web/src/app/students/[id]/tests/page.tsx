import { notFound } from 'next/navigation';
import { clipSummaries } from '@/data/clips';
import { database } from '@/data/database';
import { testsOf } from '@/data/ledger';
import { studentById } from '@/data/students';
import { today } from '@/data/today';
import { TestsScreen } from '@/screens/tests/TestsScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Tests' };

export default async function TestsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const [tests, clips] = await Promise.all([testsOf(db, id), clipSummaries(db, id)]);
  return (
    <TestsScreen student={{ id, name: student.name }} tests={tests} clips={clips} today={today()} />
  );
}
