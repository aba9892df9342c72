import { reaches } from '@/data/access/roles';
import { whoIsHere } from '@/data/access/whoAsks';
import { backupFolder, backups } from '@/data/maintenance/backups';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { unreadableCells } from '@/data/database/unreadable';
import { doorNow } from '@/data/door/door';
import { settingsOf } from '@/data/gym/gym';
import { filmTroublesHere, upkeepNow } from '@/data/maintenance/here';
import { today } from '@/data/database/today';
import { KEPT_DAYS, trash } from '@/data/maintenance/trash';
import { GymScreen } from '@/screens/gym/GymScreen';
import { UpkeepNotices } from '@/screens/upkeep/UpkeepNotices';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Gym' };

export default async function GymPage() {
  const db = await database();
  const folder = backupFolder(dataFolder());
  // First: a store that does not answer it is told of by the notices.
  const troubles = await filmTroublesHere();
  const [asker, settings, deleted, kept, upkeep, unreadable, door] = await Promise.all([
    whoIsHere(),
    settingsOf(db),
    trash(db),
    backups(folder),
    upkeepNow(),
    unreadableCells(db),
    doorNow(),
  ]);
  return (
    <GymScreen
      settings={{
        name: settings.name,
        className: settings.className,
        grades: settings.grades,
        from: settings.from,
        sessions: settings.sessions,
        manner: settings.manner,
      }}
      trash={deleted}
      backups={kept}
      folder={folder}
      keptDays={KEPT_DAYS}
      troubles={troubles}
      unreadable={unreadable}
      isOpen={door !== null}
      isOwner={asker !== null && reaches(asker.role, 'owner')}
      notices={<UpkeepNotices upkeep={upkeep} today={today()} />}
    />
  );
}
