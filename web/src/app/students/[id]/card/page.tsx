import { notFound } from 'next/navigation';
import { database } from '@/data/database';
import { activeCues } from '@/data/findings';
import { theGym } from '@/data/gym';
import { studentById } from '@/data/students';
import { Card } from '@/screens/card/Card';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Card' };

export default async function CardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const [gym, cues] = await Promise.all([theGym(db), activeCues(db, id)]);
  return <Card gym={gym} student={student} cues={cues} today={new Date()} />;
}
