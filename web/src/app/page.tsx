import { plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import { database } from '@/data/database/database';
import type { Db } from '@/data/database/db';
import { untilChanged } from '@/data/database/untilChanged';
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
import { LookAgainOnNews } from '@/ui/newsLine';
import { UpkeepNotices } from '@/screens/upkeep/UpkeepNotices';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Floor' };

async function everybody(db: Db, day: Day) {
  const [students, facts, cues, hurting] = await Promise.all([
    allStudents(db),
    floorFacts(db),
    activeCues(db),
    hurtingStudents(db),
  ]);
  const rows = floorRows({ students, facts, cues, hurting, today: day });
  const archived = students.filter((student) => student.isArchived);
  return { rows, headline: floorHeadline(rows, facts), archived };
}

export default async function FloorPage() {
  const db = await database();
  const day = today();
  const [gym, { rows, headline, archived }, plan, upkeep] = await Promise.all([
    theGym(db),
    untilChanged(db, 'floor', () => everybody(db, day)),
    planBetween(db, day, plusDays(day, 1)),
    upkeepNow(),
  ]);
  return (
    <>
      <LookAgainOnNews />
      <Floor
        gym={gym}
        rows={rows}
        headline={headline}
        archived={archived}
        today={plan}
        notices={<UpkeepNotices upkeep={upkeep} today={day} />}
      />
    </>
  );
}
