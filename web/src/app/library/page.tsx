import { edited, NO_EDITS } from '@sinew/core/judge/library/edits';
import { agreementsOf } from '@/data/finding/agreements';
import { database } from '@/data/database/database';
import { editsOf, libraryHistory } from '@/data/gym/library';
import { LibraryScreen } from '@/screens/library/LibraryScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Library' };

export default async function LibraryPage() {
  const db = await database();
  const [edits, history] = await Promise.all([editsOf(db), libraryHistory(db)]);
  // Faults that are not judged stand in the library too, so that they can be judged again.
  const judged = mapped(edits.faults, (fault) => ({ ...fault, isOff: undefined }));
  const catalogue = edited({ ...edits, faults: judged });
  return (
    <LibraryScreen
      catalogue={catalogue}
      usual={edited(NO_EDITS)}
      edits={edits}
      history={history}
      agreements={await agreementsOf(db, catalogue)}
    />
  );
}

function mapped<T>(all: Readonly<Record<string, T>>, to: (one: T) => T): Record<string, T> {
  return Object.fromEntries(Object.entries(all).map(([key, one]) => [key, to(one)]));
}
