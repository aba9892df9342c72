import { refuseForeign } from '@/app/api/answers';
import { goTo } from '@/app/api/entry';
import { accessDb } from '@/data/access/accessDb';
import { cookieFor, cookieOf } from '@/data/access/cookies';
import { endSignIns, whoseToken } from '@/data/access/signIns';

export const dynamic = 'force-dynamic';

/** Ends the sign-in of this browser; a paired phone stays paired. */
export async function POST(request: Request): Promise<Response> {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const db = await accessDb();
  const token = cookieOf(request.headers, 'passcode');
  const asker = token === null ? null : await whoseToken(db, token, 'passcode');
  if (asker?.signInId) await endSignIns(db, { id: asker.signInId });
  return goTo(request, '/sign-in', [cookieFor(request.headers, 'passcode', '', 0)]);
}
