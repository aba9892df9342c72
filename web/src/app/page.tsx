import { plusDays } from '@sinew/core/foundation/calendar/day';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { floorFacts } from '@/data/gym/floor';
import { theGym } from '@/data/gym/gym';
import { hurtingStudents } from '@/data/finding/studentFaults';
import { upkeepNow } from '@/data/maintenance/here';
import { planBetween } from '@/data/work/plan';
import { allStudents } from '@/data/student/students';
import { today } from '@/data/database/today';
import { Floor } from '@/screens/floor/Floor';
import { floorHeadline, floorRows } from '@/screens/floor/rows';
import { UpkeepNotices } from '@/screens/upkeep/UpkeepNotices';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Floor' };

export default async function FloorPage() {
  const db = await database();
  const day = today();
  const [gym, students, facts, cues, hurting, plan, upkeep] = await Promise.all([
    theGym(db),
    allStudents(db),
    floorFacts(db),
    activeCues(db),
    hurtingStudents(db),
    planBetween(db, day, plusDays(day, 1)),
    upkeepNow(),
  ]);
  const rows = floorRows({ students, facts, cues, hurting, today: day });
  return (
    <Floor
      gym={gym}
      rows={rows}
      headline={floorHeadline(rows, facts)}
      archived={students.filter((student) => student.isArchived)}
      today={plan}
      notices={<UpkeepNotices upkeep={upkeep} today={day} />}
    />
  );
}
