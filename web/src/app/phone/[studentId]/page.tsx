import { notFound } from 'next/navigation';
import { whoIsHere } from '@/data/access/whoAsks';
import { storeHere } from '@/data/film/clipFilesHere';
import { database } from '@/data/database/database';
import { studentById } from '@/data/student/students';
import { ConsentHere } from '@/screens/phone/ConsentHere';
import { PhoneFrame } from '@/screens/phone/PhoneFrame';
import { SendClips } from '@/screens/phone/SendClips';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Film' };

export default async function PhoneStudentPage({
  params,
}: {
  params: Promise<{ studentId: string }>;
}) {
  const { studentId } = await params;
  const [asker, student] = await Promise.all([
    whoIsHere(),
    studentById(await database(), studentId),
  ]);
  if (!student) notFound();
  const { id, name, consent, isMinor } = student;
  return (
    <PhoneFrame asker={asker!} back="/phone">
      <h1 className="font-serif text-[2rem] leading-tight">{name}</h1>
      {consent ? (
        <SendClips studentId={id} />
      ) : (
        <ConsentHere studentId={id} name={name} isMinor={isMinor} hasStore={storeHere() !== null} />
      )}
    </PhoneFrame>
  );
}
