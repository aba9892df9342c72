import { database } from '@/data/database/database';
import {
  FEWEST_MARKED_AGAIN,
  markingErrors,
  strikesToMarkAgain,
} from '@/data/progress/repeatMarkings';
import { MarkingScreen } from '@/screens/marking/MarkingScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Mark again' };

export default async function MarkingPage() {
  const db = await database();
  const [strikes, errors] = await Promise.all([strikesToMarkAgain(db), markingErrors(db)]);
  return <MarkingScreen strikes={strikes} errors={errors} fewest={FEWEST_MARKED_AGAIN} />;
}
