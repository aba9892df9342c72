/** Who asks: told by what the browser keeps, or by sitting at a machine on which nobody signs in. */
import { cookies, headers } from 'next/headers';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { isByDoor } from '../door/byDoor';
import { accessDb, type AccessDb } from './accessDb';
import { cookieOf, type CookieKind } from './cookies';
import { hasOwner } from './people';
import { onlyFor, reaches, type Asker, type Role } from './roles';
import { whoseToken } from './signIns';

type Heads = Pick<Headers, 'get'>;

/** The demo's people are made up, and it never opens to a network: nobody signs in. */
export const isDemo = (): boolean => process.env.SINEW_DEMO === '1';

const UNNAMED = 'The coach';

/** What whoever sits at the machine is called before anybody signs in. */
export async function coachAtMachine(db: AccessDb): Promise<string> {
  const row = await db
    .selectFrom('said')
    .select('value')
    .where('key', '=', 'coach at the machine')
    .executeTakeFirst();
  return row?.value ?? UNNAMED;
}

export async function nameCoachAtMachine(db: AccessDb, value: string): Promise<void> {
  await db
    .insertInto('said')
    .values({ key: 'coach at the machine', value })
    .onConflict((on) => on.column('key').doUpdateSet({ value }))
    .execute();
}

/** @returns null when nobody is known to ask */
export async function whoAsks(heads: Heads): Promise<Asker | null> {
  const db = await accessDb();
  if (isDemo() || !(await hasOwner(db))) {
    if (isByDoor(heads)) return null;
    const name = await coachAtMachine(db);
    return { personId: null, name, role: 'owner', signInId: null, isByPhone: false };
  }
  const known = async (kind: CookieKind) => {
    const token = cookieOf(heads, kind);
    return token === null ? null : whoseToken(db, token, kind);
  };
  return (await known('passcode')) ?? (await known('phone'));
}

/** The same of the request that is being answered: for pages and their actions. */
export async function whoIsHere(): Promise<Asker | null> {
  const [heads, kept] = await Promise.all([headers(), cookies()]);
  // Somebody who has come in just now, by what an action has set.
  const brought = () => kept.getAll().map(({ name, value }) => `${name}=${value}`);
  return whoAsks({
    get: (name) => (name === 'cookie' ? brought().join('; ') : heads.get(name)),
  });
}

/** The name of who is signed in; null where nobody signs in. */
export async function signedName(): Promise<string | null> {
  const asker = await whoIsHere();
  return asker?.personId ? asker.name : null;
}

/** @throws Problem `foreign` when whoever asks may not do what this role may */
export async function mustBe(role: Role): Promise<Asker> {
  const asker = await whoIsHere();
  if (asker && reaches(asker.role, role)) return asker;
  throw new Problem('foreign', asker ? onlyFor(role) : { happened: 'Sign in first.' });
}
