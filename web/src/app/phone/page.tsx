import { whoIsHere } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { allStudents } from '@/data/student/students';
import { ChooseWho } from '@/screens/phone/ChooseWho';
import { PhoneFrame } from '@/screens/phone/PhoneFrame';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Film' };

export default async function PhonePage() {
  const [asker, students] = await Promise.all([whoIsHere(), allStudents(await database())]);
  return (
    <PhoneFrame asker={asker!}>
      <ChooseWho
        students={students
          .filter(({ isArchived }) => !isArchived)
          .map(({ id, name, classGroup, consent }) => ({
            id,
            name,
            classGroup,
            hasConsent: consent !== null,
          }))}
      />
    </PhoneFrame>
  );
}
