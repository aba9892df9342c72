import { notFound } from 'next/navigation';
import { clipSummaries } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { speedsOf, testsOf } from '@/data/progress/ledger';
import { ask } from '@/data/threads/ask';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { TestsScreen } from '@/screens/tests/TestsScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Tests' };

/** So many of the newest sets are offered for a ladder. */
const OFFERED = 40;

export default async function TestsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const [tests, clips, { sets }] = await Promise.all([
    testsOf(db, id),
    clipSummaries(db, id),
    ask('setsNow', id),
  ]);
  return (
    <TestsScreen
      student={{ id, name: student.name }}
      tests={tests}
      clips={clips}
      speeds={speedsOf(sets).slice(0, OFFERED)}
      today={today()}
    />
  );
}
