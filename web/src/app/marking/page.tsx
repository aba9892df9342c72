import { ask } from '@/data/threads/ask';
import { database } from '@/data/database/database';
import { FEWEST_MARKED_AGAIN, strikesToMarkAgain } from '@/data/progress/repeatMarkings';
import { MarkingScreen } from '@/screens/marking/MarkingScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Mark again' };

export default async function MarkingPage() {
  const db = await database();
  const [strikes, errors] = await Promise.all([strikesToMarkAgain(db), ask('markingErrors')]);
  return <MarkingScreen strikes={strikes} errors={errors} fewest={FEWEST_MARKED_AGAIN} />;
}
