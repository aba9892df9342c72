import { ask } from '@/data/threads/ask';
import { studentById } from '@/data/student/students';
import { database } from '@/data/database/database';
import { FEWEST_MARKED_AGAIN, strikesToMarkAgain } from '@/data/progress/repeatMarkings';
import { MarkingScreen } from '@/screens/marking/MarkingScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Mark again' };

export default async function MarkingPage({
  searchParams,
}: {
  searchParams: Promise<{ student?: string }>;
}) {
  const { student: id } = await searchParams;
  const db = await database();
  const [strikes, errors, student] = await Promise.all([
    strikesToMarkAgain(db),
    ask('markingErrors'),
    typeof id === 'string' ? studentById(db, id) : null,
  ]);
  const marking = { errors, fewest: FEWEST_MARKED_AGAIN };
  // Who comes from a student's ledger is shown that student's strikes first.
  const own = (one: { readonly studentId: string }) => Number(one.studentId === student?.id);
  const ordered = student ? [...strikes].sort((a, b) => own(b) - own(a)) : strikes;
  return <MarkingScreen {...marking} strikes={ordered} student={student} />;
}
