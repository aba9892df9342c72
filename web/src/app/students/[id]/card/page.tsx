import { notFound } from 'next/navigation';
import { ask } from '@/data/threads/ask';
import { accessDb } from '@/data/access/accessDb';
import { lessonsOf } from '@/data/access/lessons';
import { doorNow } from '@/data/door/door';
import { talksOf } from '@/data/clip/talks';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { theGym } from '@/data/gym/gym';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { sharingOf } from '@/data/student/sharing';
import { calendarOfWork } from '@/data/work/plan';
import { Card } from '@/screens/card/Card';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Card' };

export default async function CardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const [student, card, gym, door] = await Promise.all([
    studentById(db, id),
    ask('cardOf', id),
    theGym(db),
    doorNow(),
  ]);
  if (!student || !card) notFound();
  const day = today();
  const dated = [...card.cues.flatMap(({ work }) => work), ...card.other].filter(
    ({ nextCheck }) => nextCheck >= day,
  );
  return (
    <Card
      gym={gym}
      student={student}
      card={card}
      talks={await talksOf(db, dataFolder(), id)}
      sharing={await sharingOf(db, student)}
      calendar={dated.length > 0 ? calendarOfWork(gym.name, dated) : null}
      today={day}
      isOpen={door !== null}
      links={await lessonsOf(await accessDb(), id)}
    />
  );
}
