import { group } from 'd3-array';
import { database } from '@/data/database/database';
import { activeCues } from '@/data/finding/findings';
import { theGym } from '@/data/gym/gym';
import { allStudents } from '@/data/student/students';
import { today } from '@/data/database/today';
import { heededBy, SOUND } from '@sinew/core/train/work/condition';
import { conditions } from '@/data/work/conditions';
import { workInHand } from '@/data/work/work';
import { Sheet } from '@/screens/card/Sheet';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Class sheet' };

export default async function SheetPage({
  searchParams,
}: {
  searchParams: Promise<{ class?: string }>;
}) {
  const chosen = (await searchParams).class ?? '';
  const db = await database();
  const [gym, all, cues, work, may] = await Promise.all([
    theGym(db),
    allStudents(db),
    activeCues(db),
    workInHand(db),
    conditions(db),
  ]);
  const here = all.filter(({ isArchived }) => !isArchived);
  const classes = [...new Set(here.map(({ classGroup }) => classGroup).filter(Boolean))].sort();
  const cuesOf = group(cues, ({ studentId }) => studentId);
  const workOf = group(work, ({ studentId }) => studentId);
  const rows = here
    .filter(({ classGroup }) => chosen === '' || classGroup === chosen)
    .map(({ id, name }) => ({
      id,
      name,
      cues: cuesOf.get(id) ?? [],
      work: workOf.get(id) ?? [],
      heed: heededBy(may.get(id) ?? SOUND),
    }));
  return <Sheet gym={gym} rows={rows} classes={classes} chosen={chosen} today={today()} />;
}
