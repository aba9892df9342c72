import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { today } from '@/data/database/today';
import { untilChanged } from '@/data/database/untilChanged';
import { studentById } from '@/data/student/students';
import { ask } from '@/data/threads/ask';
import { LedgerScreen } from '@/screens/ledger/LedgerScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Ledger' };

export default async function LedgerPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ technique?: string }>;
}) {
  const [{ id }, { technique }] = await Promise.all([params, searchParams]);
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const shown = await untilChanged(db, `ledger ${id} ${technique ?? ''}`, () =>
    ask('ledgerOf', id, technique),
  );
  return (
    <LedgerScreen
      key={shown.technique}
      student={{ id, name: student.name }}
      today={today()}
      {...shown}
    />
  );
}
