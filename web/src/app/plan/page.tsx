import { isDay, mondayOf, plusDays } from '@sinew/core/foundation/calendar/day';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { floorFacts } from '@/data/gym/floor';
import { sessionsOf } from '@/data/gym/gym';
import { hurtingStudents } from '@/data/finding/studentFaults';
import { planBetween } from '@/data/work/plan';
import { allStudents } from '@/data/student/students';
import { today } from '@/data/database/today';
import { floorRows } from '@/screens/floor/rows';
import { PlanScreen } from '@/screens/plan/PlanScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Plan' };

const DAYS = 21;
const WALK = 40;

export default async function PlanPage({
  searchParams,
}: {
  searchParams: Promise<{ from?: string }>;
}) {
  const { from = '' } = await searchParams;
  const day = today();
  const monday = mondayOf(isDay(from) ? from : day);
  const db = await database();
  const [items, students, facts, cues, hurting, sessions] = await Promise.all([
    planBetween(db, monday, plusDays(monday, DAYS)),
    allStudents(db),
    floorFacts(db),
    activeCues(db),
    hurtingStudents(db),
    sessionsOf(db),
  ]);
  const rows = floorRows({ students, facts, cues, hurting, today: day });
  return (
    <PlanScreen
      key={monday}
      monday={monday}
      today={day}
      items={items}
      students={students
        .filter(({ isArchived }) => !isArchived)
        .map(({ id, name }) => ({ id, name }))}
      sessions={sessions.map(({ id, name }) => ({ id, name }))}
      walk={rows.slice(0, WALK).map(({ id, name, next }) => ({ id, name, next }))}
    />
  );
}
