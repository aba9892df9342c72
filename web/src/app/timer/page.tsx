import { database } from '@/data/database/database';
import { sessionsOf } from '@/data/gym/gym';
import { conditions } from '@/data/work/conditions';
import { allStudents } from '@/data/student/students';
import { today } from '@/data/database/today';
import { SOUND } from '@sinew/core/train/work/condition';
import { TimerScreen } from '@/screens/timer/TimerScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Timer' };

interface Props {
  searchParams: Promise<{ session?: string; student?: string }>;
}

export default async function TimerPage({ searchParams }: Props) {
  const { session = null, student = null } = await searchParams;
  const db = await database();
  const [everybody, sessions, byStudent] = await Promise.all([
    allStudents(db),
    sessionsOf(db),
    conditions(db),
  ]);
  const students = everybody.filter((one) => !one.isArchived);
  return (
    <TimerScreen
      sessions={sessions}
      students={students.map(({ id, name, classGroup, massKg }) => ({
        id,
        name,
        classGroup,
        massKg,
        condition: byStudent.get(id) ?? SOUND,
      }))}
      asked={{ session, student }}
      today={today()}
    />
  );
}
