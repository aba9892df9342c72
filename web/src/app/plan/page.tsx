import { isDay, mondayOf, plusDays } from '@sinew/core/foundation/calendar/day';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { floorFacts } from '@/data/gym/floor';
import { sessionsOf } from '@/data/gym/gym';
import { hurtingStudents } from '@/data/finding/studentFaults';
import { conditions } from '@/data/work/conditions';
import { planBetween } from '@/data/work/plan';
import { allStudents } from '@/data/student/students';
import { today } from '@/data/database/today';
import { leavesOut, type Condition } from '@sinew/core/train/work/condition';
import type { Session } from '@sinew/core/train/work/session';
import { floorRows } from '@/screens/floor/rows';
import { PlanScreen, type PlannedSession } from '@/screens/plan/PlanScreen';

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
  const [items, students, facts, cues, hurting, sessions, may] = await Promise.all([
    planBetween(db, monday, plusDays(monday, DAYS)),
    allStudents(db),
    floorFacts(db),
    activeCues(db),
    hurtingStudents(db),
    sessionsOf(db),
    conditions(db),
  ]);
  const rows = floorRows({ students, facts, cues, hurting, today: day });
  const active = students.filter(({ isArchived }) => !isArchived);
  return (
    <PlanScreen
      key={monday}
      monday={monday}
      today={day}
      items={items}
      students={active.map(({ id, name }) => ({ id, name }))}
      sessions={sessions.map((session) => plannedAs(session, active, may))}
      walk={rows.slice(0, WALK).map(({ id, name, next }) => ({ id, name, next }))}
    />
  );
}

/** @param may by student */
function plannedAs(
  { id, name, blocks }: Session,
  students: readonly { readonly id: string; readonly name: string }[],
  may: ReadonlyMap<string, Condition>,
): PlannedSession {
  const power = blocks.filter(({ intent }) => intent === 'power');
  const leaving = students.filter((one) => {
    const condition = may.get(one.id);
    return condition && power.some((block) => leavesOut(block, condition) !== null);
  });
  return {
    id,
    name,
    hasPower: power.length > 0,
    leavingOut: leaving.map((one) => one.name),
  };
}
