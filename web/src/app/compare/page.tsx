import { notFound } from 'next/navigation';
import { medianReadings } from '@sinew/core/measure/measures/set';
import { differencesOf, type Compared } from '@sinew/core/train/progress/compare';
import { strikeToCompare, type StrikeToCompare } from '@/data/finding/comparing';
import { database } from '@/data/database/database';
import { libraryOf } from '@/data/gym/library';
import { markingErrors, typicalErrors } from '@/data/progress/repeatMarkings';
import { studentById } from '@/data/student/students';
import { CompareScreen } from '@/screens/compare/CompareScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Compare' };

const alone = ({ strike }: StrikeToCompare): Compared => ({ ...strike, strikes: 1 });
const asSet = ({ strike, set }: StrikeToCompare): Compared => ({
  ...strike,
  readings: medianReadings(set.map(({ readings }) => readings)),
  strikes: set.length,
});

export default async function ComparePage({
  searchParams,
}: {
  searchParams: Promise<{ a?: string; b?: string }>;
}) {
  const { a = '', b = '' } = await searchParams;
  const db = await database();
  const then = await strikeToCompare(db, a);
  const now = await strikeToCompare(db, b);
  const student = now && (await studentById(db, now.studentId));
  if (!then || !now || !student) notFound();
  const [{ catalogue }, errors] = await Promise.all([libraryOf(db), markingErrors(db)]);
  const typical = typicalErrors(errors);
  const isOfSets = then.set.length > 1 && now.set.length > 1;
  return (
    <CompareScreen
      key={a + b}
      student={student}
      then={then}
      now={now}
      ofStrikes={differencesOf(alone(then), alone(now), catalogue, typical)}
      ofSets={isOfSets ? differencesOf(asSet(then), asSet(now), catalogue, typical) : null}
    />
  );
}
