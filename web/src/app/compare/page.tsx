import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { ask } from '@/data/threads/ask';
import { comparer } from '@/data/progress/comparison';
import { studentById } from '@/data/student/students';
import { CompareScreen } from '@/screens/compare/CompareScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Compare' };

export default async function ComparePage({
  searchParams,
}: {
  searchParams: Promise<{ a?: string; b?: string }>;
}) {
  const { a = '', b = '' } = await searchParams;
  const db = await database();
  const [then, now] = await Promise.all([ask('strikeToCompare', a), ask('strikeToCompare', b)]);
  const student = now && (await studentById(db, now.studentId));
  if (!then || !now || !student) notFound();
  const { ofStrikes, ofSets } = (await comparer(db, student.id))(then, now);
  return (
    <CompareScreen
      key={a + b}
      student={student}
      then={then}
      now={now}
      ofStrikes={ofStrikes}
      ofSets={ofSets}
    />
  );
}
