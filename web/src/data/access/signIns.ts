/** By what a browser or a phone is known: begun by a passcode or by pairing, seen, ended. */
import { nanoid } from 'nanoid';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { now } from '../database/db';
import type { AccessDb } from './accessDb';
import type { Asker } from './roles';
import { hashOf, isPasscode, newToken } from './secrets';
import { countTries, wasRight, type Try } from './wrongCodes';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Milliseconds that a sign-in lasts since it was used last. */
const LASTS = {
  /** A day at the gym. */
  passcode: 12 * HOUR,
  /** The same on a paired phone, where it was asked for. */
  remembered: 30 * DAY,
  phone: 90 * DAY,
} as const;

/** That somebody was here is written down no oftener than this, milliseconds. */
const SEEN_EVERY = 60_000;

export interface SignIn {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  readonly kind: 'passcode' | 'phone';
  readonly device: string;
  /** ISO 8601. */
  readonly createdAt: string;
  readonly usedAt: string;
}

/** A person by name, as people write it. */
export async function named(db: AccessDb, name: string) {
  return db
    .selectFrom('person')
    .selectAll()
    .where((eb) => eb(eb.fn<string>('lower', ['name']), '=', name.trim().toLowerCase()))
    .where('ended_at', 'is', null)
    .executeTakeFirst();
}

/** What the browser is to keep. */
export interface Begun {
  readonly token: string;
  /** Seconds. */
  readonly lasts: number;
  readonly asker: Asker;
}

/** Wrong passcodes for one name from everywhere on the network together, and from one address for any name. */
const FREE_FOR_ALL = 30;

/**
 * @param from the address on the network, or null at the machine itself
 * @throws Problem `foreign` when name or passcode is wrong, `busy` while nobody may try
 */
export async function signIn(
  db: AccessDb,
  given: { readonly name: string; readonly passcode: string },
  from: string | null,
  device: string,
  isRemembered = false,
): Promise<Begun> {
  const who = hashOf(given.name.trim().toLowerCase());
  const tries: Try[] =
    from === null
      ? [{ key: `machine ${who}` }]
      : [
          { key: `${from} ${who}` },
          // Names are tried too, and each try takes the machine a tenth of a second.
          { key: `${from} anybody`, free: FREE_FOR_ALL },
          { key: `network ${who}`, free: FREE_FOR_ALL },
        ];
  await countTries(db, tries);
  const person = await named(db, given.name);
  if (!(await isPasscode(given.passcode, person?.passcode ?? null)) || !person) {
    throw new Problem('foreign', {
      happened: 'Name and passcode do not belong together.',
      todo: 'Try again. The owner can give you a new passcode under Gym.',
    });
  }
  await wasRight(db, tries);
  return begin(db, person.id, 'passcode', device, isRemembered ? 'remembered' : 'passcode');
}

/** Let somebody in whose right to it has been looked at. */
export async function begin(
  db: AccessDb,
  personId: string,
  kind: SignIn['kind'],
  device: string,
  lasting: keyof typeof LASTS = kind,
): Promise<Begun> {
  const token = newToken();
  const at = now();
  await db
    .insertInto('sign_in')
    .values({
      id: nanoid(),
      person_id: personId,
      token: hashOf(token),
      kind,
      device: device.slice(0, 120),
      created_at: at,
      used_at: at,
      ends_at: new Date(Date.now() + LASTS[lasting]).toISOString(),
      ended_at: null,
    })
    .execute();
  return { token, lasts: LASTS[lasting] / 1000, asker: (await whoseToken(db, token, kind))! };
}

/** Who a token is of, while it holds; using it makes it last. */
export async function whoseToken(
  db: AccessDb,
  token: string,
  kind: SignIn['kind'],
): Promise<Asker | null> {
  const row = await db
    .selectFrom('sign_in')
    .innerJoin('person', 'person.id', 'sign_in.person_id')
    .select(['sign_in.id', 'person_id', 'name', 'role', 'used_at', 'ends_at'])
    .where('token', '=', hashOf(token))
    .where('kind', '=', kind)
    .where('sign_in.ended_at', 'is', null)
    .where('person.ended_at', 'is', null)
    .where('ends_at', '>', now())
    .executeTakeFirst();
  if (!row) return null;
  const [used, ends] = [Date.parse(row.used_at), Date.parse(row.ends_at)];
  if (Math.abs(Date.now() - used) > SEEN_EVERY) {
    const ends_at = new Date(Date.now() + (ends - used)).toISOString();
    await db
      .updateTable('sign_in')
      .set({ used_at: now(), ends_at })
      .where('id', '=', row.id)
      .execute();
  }
  const isByPhone = kind === 'phone';
  return {
    personId: row.person_id,
    name: row.name,
    // A phone that lies on the mat films; to look at leaks on it, its owner signs in.
    role: isByPhone ? 'assistant' : row.role,
    signInId: row.id,
    isByPhone,
  };
}

/** Those that hold, the one used last first; of one person, or of all. */
export async function signIns(db: AccessDb, personId: string | null): Promise<SignIn[]> {
  const rows = await db
    .selectFrom('sign_in')
    .innerJoin('person', 'person.id', 'sign_in.person_id')
    .select(['sign_in.id', 'person_id', 'name', 'kind', 'device'])
    .select(['sign_in.created_at', 'used_at'])
    .where('sign_in.ended_at', 'is', null)
    .where('person.ended_at', 'is', null)
    .where('ends_at', '>', now())
    .$if(personId !== null, (query) => query.where('person_id', '=', personId!))
    .orderBy('used_at', 'desc')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    personId: row.person_id,
    name: row.name,
    kind: row.kind,
    device: row.device,
    createdAt: row.created_at,
    usedAt: row.used_at,
  }));
}

interface Which {
  readonly id?: string;
  readonly personId?: string;
  readonly kind?: SignIn['kind'];
  /** All but this one. */
  readonly but?: string | null;
}

/** @returns how many were ended */
export async function endSignIns(db: AccessDb, which: Which): Promise<number> {
  const { id, personId, kind, but = null } = which;
  const { numUpdatedRows } = await db
    .updateTable('sign_in')
    .set({ ended_at: now() })
    .where('ended_at', 'is', null)
    .$if(id !== undefined, (query) => query.where('id', '=', id!))
    .$if(personId !== undefined, (query) => query.where('person_id', '=', personId!))
    .$if(kind !== undefined, (query) => query.where('kind', '=', kind!))
    .$if(but !== null, (query) => query.where('id', '!=', but!))
    .executeTakeFirst();
  return Number(numUpdatedRows);
}
