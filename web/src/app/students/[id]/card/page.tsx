import { notFound } from 'next/navigation';
import { ask } from '@/data/threads/ask';
import { database } from '@/data/database/database';
import { theGym } from '@/data/gym/gym';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { Card } from '@/screens/card/Card';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Card' };

export default async function CardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const [student, card, gym] = await Promise.all([
    studentById(db, id),
    ask('cardOf', id),
    theGym(db),
  ]);
  if (!student || !card) notFound();
  return <Card gym={gym} student={student} card={card} today={today()} />;
}
