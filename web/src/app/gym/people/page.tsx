import { accessDb } from '@/data/access/accessDb';
import { deeds } from '@/data/access/deeds';
import { people } from '@/data/access/people';
import { signIns } from '@/data/access/signIns';
import { coachAtMachine, isDemo, whoIsHere } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { doorNow } from '@/data/door/door';
import { PeopleScreen } from '@/screens/people/PeopleScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Who comes in' };

/** Lines of who did what that are shown. */
const SHOWN = 60;

export default async function PeoplePage() {
  const db = await accessDb();
  const [asker, everybody, devices, machine, door, done] = await Promise.all([
    whoIsHere(),
    people(db),
    signIns(db, null),
    coachAtMachine(db),
    doorNow(),
    deeds(await database(), SHOWN),
  ]);
  return (
    <PeopleScreen
      asker={asker!}
      people={everybody}
      devices={devices}
      machine={machine}
      door={door}
      deeds={done}
      isDemo={isDemo()}
    />
  );
}
