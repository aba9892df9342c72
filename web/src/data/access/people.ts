/** Who coaches here: names, roles, passcodes. */
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { refused } from '@sinew/core/foundation/problem/problem';
import { now } from '../database/db';
import type { AccessDb } from './accessDb';
import { ROLES, type Role } from './roles';
import { hashPasscode, passcodeSchema } from './secrets';
import { endSignIns, named } from './signIns';

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

export const personName = z
  .string()
  .trim()
  .min(1, 'Who is it? Write the name.')
  .max(60, 'The name is too long.');

export const personForm = z.object({
  name: personName,
  role: z.enum(ROLES),
  passcode: passcodeSchema,
});

export type PersonInput = z.infer<typeof personForm>;

/** Everybody who may come in, the owner first. */
export async function people(db: AccessDb): Promise<Person[]> {
  const rows = await db
    .selectFrom('person')
    .select(['id', 'name', 'role'])
    .where('ended_at', 'is', null)
    .orderBy('name')
    .execute();
  return rows.sort((a, b) => ROLES.indexOf(b.role) - ROLES.indexOf(a.role));
}

/** From then on everybody signs in, at the machine too. */
export async function hasOwner(db: AccessDb): Promise<boolean> {
  const row = await db
    .selectFrom('person')
    .select('id')
    .where('role', '=', 'owner')
    .where('ended_at', 'is', null)
    .executeTakeFirst();
  return row !== undefined;
}

/** @throws Problem `refused` when somebody has this name, or when a gym without an owner gets anybody else */
export async function addPerson(db: AccessDb, input: PersonInput): Promise<Person> {
  const passcode = await hashPasscode(input.passcode);
  return db.transaction().execute(async (trx) => {
    if ((await hasOwner(trx)) !== (input.role !== 'owner')) {
      throw input.role === 'owner'
        ? refused('This gym has an owner.', 'The owner can hand it on under Gym.')
        : refused('This gym has no owner yet.', 'Set up the owner first.');
    }
    if (await named(trx, input.name)) throw refused(`${input.name} is here already.`);
    const id = nanoid();
    const { name, role } = input;
    await trx
      .insertInto('person')
      .values({ id, name, role, passcode, created_at: now(), ended_at: null })
      .execute();
    return { id, name, role };
  });
}

/** A new passcode ends every sign-in that the old one began, but for one. */
export async function setPasscode(
  db: AccessDb,
  personId: string,
  passcode: string,
  but: string | null = null,
): Promise<void> {
  const hashed = await hashPasscode(passcodeSchema.parse(passcode));
  await db.updateTable('person').set({ passcode: hashed }).where('id', '=', personId).execute();
  await endSignIns(db, { personId, kind: 'passcode', but });
}

/** @throws Problem `refused` for the owner, who is who lets others in */
export async function setRole(
  db: AccessDb,
  personId: string,
  role: Exclude<Role, 'owner'>,
): Promise<void> {
  await notTheOwner(db, personId);
  await db.updateTable('person').set({ role }).where('id', '=', personId).execute();
}

/** Hand the gym on: there is one owner, and there is always one. */
export async function handOn(db: AccessDb, from: string, to: string): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const next = await trx
      .selectFrom('person')
      .select('id')
      .where('id', '=', to)
      .where('role', '=', 'coach')
      .where('ended_at', 'is', null)
      .executeTakeFirst();
    if (!next) throw refused('A gym is handed on to one of its coaches.');
    await trx.updateTable('person').set({ role: 'coach' }).where('id', '=', from).execute();
    await trx.updateTable('person').set({ role: 'owner' }).where('id', '=', to).execute();
  });
}

/** Somebody comes in no more, by no device. @throws Problem `refused` for the owner */
export async function endPerson(db: AccessDb, personId: string): Promise<void> {
  await notTheOwner(db, personId);
  await db.updateTable('person').set({ ended_at: now() }).where('id', '=', personId).execute();
  await endSignIns(db, { personId });
}

async function notTheOwner(db: AccessDb, personId: string): Promise<void> {
  const row = await db
    .selectFrom('person')
    .select('role')
    .where('id', '=', personId)
    .executeTakeFirst();
  if (row?.role !== 'owner') return;
  throw refused('This is the owner.', 'Hand the gym on to a coach first.');
}
