import { clipSummaries } from '@/data/clips';
import { database } from '@/data/database';
import { activeCues } from '@/data/findings';
import { theGym } from '@/data/gym';
import { allStudents } from '@/data/students';
import { Floor } from '@/screens/floor/Floor';
import { floorHeadline, floorRows } from '@/screens/floor/rows';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Floor' };

export default async function FloorPage() {
  const db = await database();
  const [gym, students, clips, cues] = await Promise.all([
    theGym(db),
    allStudents(db),
    clipSummaries(db),
    activeCues(db),
  ]);
  const rows = floorRows(students, clips, cues, new Date());
  return (
    <Floor
      gym={gym}
      rows={rows}
      headline={floorHeadline(rows, clips)}
      archived={students.filter((student) => student.isArchived)}
    />
  );
}
