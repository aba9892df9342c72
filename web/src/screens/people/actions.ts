'use server';

import { revalidatePath } from 'next/cache';
import { cookies, headers } from 'next/headers';
import { z } from 'zod';
import { firstWrong, refused, saidBy } from '@sinew/core/foundation/problem/problem';
import { accessDb } from '@/data/access/accessDb';
import { cookieName } from '@/data/access/cookies';
import type { DeedKind } from '@/data/access/deedKinds';
import { did } from '@/data/access/deeds';
import {
  addPerson,
  endPerson,
  handOn,
  people,
  personForm,
  personName,
  setPasscode,
  setRole,
  type PersonInput,
} from '@/data/access/people';
import { CODE_LASTS, isUsed, newPairing } from '@/data/access/pairings';
import { ROLES } from '@/data/access/roles';
import { passcodeSchema } from '@/data/access/secrets';
import { begin, endSignIns, signIns, type Begun } from '@/data/access/signIns';
import { isDemo, mustBe, nameCoachAtMachine } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { isByDoor } from '@/data/door/byDoor';
import { doorNow, openDoor, shutDoor } from '@/data/door/door';

const id = z.string().min(1).max(60);

/** @returns what is wrong, or null when it is done and written down */
async function done(work: Promise<unknown>, deed: DeedKind, detail = ''): Promise<string | null> {
  const problem = await saidBy(work);
  if (problem !== null) return problem;
  await did(await database(), deed, { detail });
  revalidatePath('/', 'layout');
  return null;
}

async function keepSignIn({ token, lasts }: Begun): Promise<void> {
  const heads = await headers();
  (await cookies()).set(cookieName(heads, 'passcode'), token, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: isByDoor(heads),
    maxAge: lasts,
  });
}

/** What whoever sits at this machine is called, while nobody signs in. */
export async function nameMachine(name: string): Promise<string | null> {
  const asker = await mustBe('owner');
  const parsed = personName.safeParse(name);
  if (!parsed.success) return firstWrong(parsed.error);
  if (asker.personId !== null) return 'Everybody signs in here by now: reload the page.';
  return done(nameCoachAtMachine(await accessDb(), parsed.data), 'changed-people');
}

/** The first coach becomes the gym's owner, and is signed in here at once. */
export async function setUpOwner(
  input: Omit<PersonInput, 'role'>,
  isToOpen: boolean,
): Promise<string | null> {
  await mustBe('owner');
  const parsed = personForm.safeParse({ ...input, role: 'owner' });
  if (!parsed.success) return firstWrong(parsed.error);
  const setUp = async () => {
    if (isDemo()) throw refused('Nobody signs in to the demo: its people are made up.');
    const db = await accessDb();
    const owner = await addPerson(db, parsed.data);
    await keepSignIn(await begin(db, owner.id, 'passcode', 'this machine'));
    if (isToOpen || process.env.SINEW_GYM === '1') await openDoor();
  };
  return done(setUp(), 'changed-people', `${parsed.data.name} owns the gym`);
}

export async function addSomebody(input: PersonInput): Promise<string | null> {
  await mustBe('owner');
  const parsed = personForm.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  const { name, role } = parsed.data;
  return done(addPerson(await accessDb(), parsed.data), 'changed-people', `${name}, ${role}`);
}

/** One's own, or, for the owner, anybody's. */
export async function newPasscode(personId: string, passcode: string): Promise<string | null> {
  const asker = await mustBe('coach');
  const whose = id.parse(personId);
  if (whose !== asker.personId) await mustBe('owner');
  const parsed = passcodeSchema.safeParse(passcode);
  if (!parsed.success) return firstWrong(parsed.error);
  const set = setPasscode(await accessDb(), whose, parsed.data, asker.signInId);
  return done(set, 'changed-people', 'a new passcode');
}

export async function changeRole(personId: string, role: string): Promise<string | null> {
  await mustBe('owner');
  const wanted = z.enum(ROLES).exclude(['owner']).parse(role);
  return done(setRole(await accessDb(), id.parse(personId), wanted), 'changed-people', wanted);
}

/** The gym's owner makes another coach the owner, and is a coach from then on. */
export async function handOnTo(personId: string): Promise<string | null> {
  const { personId: from } = await mustBe('owner');
  if (from === null) return 'Set up the owner first.';
  const handed = handOn(await accessDb(), from, id.parse(personId));
  return done(handed, 'changed-people', 'the gym has another owner');
}

export async function letGo(personId: string): Promise<string | null> {
  await mustBe('owner');
  const ended = endPerson(await accessDb(), id.parse(personId));
  return done(ended, 'changed-people', 'somebody comes in no more');
}

export async function openGym(): Promise<string | null> {
  await mustBe('owner');
  return done(openDoor(), 'opened-gym');
}

export async function shutGym(): Promise<string | null> {
  await mustBe('owner');
  return done(shutDoor(), 'shut-gym');
}

/** One's own browsers, and any phone: a lost one cannot wait. The owner's word ends any. */
export async function endDevice(signInId: string): Promise<string | null> {
  const asker = await mustBe('coach');
  const db = await accessDb();
  const one = (await signIns(db, null)).find((known) => known.id === id.parse(signInId));
  if (!one) return null;
  if (one.kind !== 'phone' && one.personId !== asker.personId) await mustBe('owner');
  return done(endSignIns(db, { id: one.id }), 'changed-people', `${one.device} unpaired`);
}

export type PairingShown =
  | {
      readonly kind: 'code';
      readonly code: string;
      readonly url: string;
      readonly minutes: number;
      /** Of a certificate that was made here, of which phones warn once. */
      readonly fingerprint: string | null;
    }
  | { readonly kind: 'wrong'; readonly why: string };

/** @param personId in whose name the phone films: one's own, or, for the owner, anybody's */
export async function showPairing(personId: string): Promise<PairingShown> {
  const asker = await mustBe('coach');
  const whose = id.parse(personId);
  if (whose !== asker.personId) await mustBe('owner');
  const db = await accessDb();
  const door = await doorNow();
  if (!door) return { kind: 'wrong', why: 'Open the gym to its network first.' };
  if (!(await people(db)).some((one) => one.id === whose)) {
    return { kind: 'wrong', why: 'Whose phone is it? Choose somebody who is here.' };
  }
  const code = await newPairing(db, whose);
  const url = `${door.addresses[0]}/pair?code=${code}`;
  const fingerprint = door.isOwnMade ? door.fingerprint : null;
  return { kind: 'code', code, url, minutes: CODE_LASTS / 60_000, fingerprint };
}

export async function isPaired(code: string): Promise<boolean> {
  await mustBe('coach');
  return isUsed(await accessDb(), z.string().max(20).parse(code));
}
