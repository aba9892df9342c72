import { notFound } from 'next/navigation';
import { Suspense } from 'react';
import { clipSummaries } from '@/data/clip/clips';
import { talksOf } from '@/data/clip/talks';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import type { Db } from '@/data/database/db';
import { untilChanged } from '@/data/database/untilChanged';
import { storeHere } from '@/data/film/clipFilesHere';
import { ask } from '@/data/threads/ask';
import { Trends } from '@/screens/student/Trends';
import { activeCues } from '@/data/finding/findings';
import { openHurts } from '@/data/student/hurtNotes';
import { studentById } from '@/data/student/students';
import { today } from '@/data/database/today';
import { nextFor } from '@/data/gym/standing';
import { stepOf } from '@/ui/nextStep';
import { StudentPage } from '@/screens/student/StudentPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Student' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const student = await studentById(db, id);
  if (!student) notFound();
  const day = today();
  const [clips, cues, hurts, next, talks] = await Promise.all([
    clipSummaries(db, id),
    activeCues(db, id),
    openHurts(db, id),
    nextFor(db, student, day),
    talksOf(db, dataFolder(), id),
  ]);
  return (
    <StudentPage
      student={student}
      next={stepOf(next, id, day)}
      clips={clips}
      cues={cues}
      talks={talks}
      hurts={hurts}
      trend={
        <Suspense>
          <OwnTrends db={db} studentId={id} />
        </Suspense>
      }
      today={day}
      hasStore={storeHere() !== null}
    />
  );
}

async function OwnTrends({ db, studentId }: { db: Db; studentId: string }) {
  const { alike } = await untilChanged(db, `ledger ${studentId} `, () =>
    ask('ledgerOf', studentId, undefined),
  );
  return <Trends studentId={studentId} alike={alike} />;
}
