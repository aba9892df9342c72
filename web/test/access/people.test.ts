/** Who comes in: people and their passcodes, sign-ins, pairing, and what wrong codes cost. */
import { readFileSync } from 'node:fs';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { scratchFolder } from '@sinew/demo/scratch';
import { accessPath, openAccess, type AccessDb } from '@/data/access/accessDb';
import { CODE_LASTS, isUsed, newPairing, pair } from '@/data/access/pairings';
import {
  addPerson,
  endPerson,
  handOn,
  hasOwner,
  people,
  setPasscode,
  setRole,
} from '@/data/access/people';
import { newCode, passcodeSchema, typedCode } from '@/data/access/secrets';
import { endSignIns, signIn, signIns, whoseToken } from '@/data/access/signIns';
import { countTries, waitAfter, wasRight } from '@/data/access/wrongCodes';

const OWNER = { name: 'Ilse Brandt', role: 'owner', passcode: 'harbour-42' } as const;
const COACH = { name: 'Tomas Reed', role: 'coach', passcode: 'boathouse7' } as const;

let db: AccessDb;
let folder: string;

beforeEach(async () => {
  folder = scratchFolder('access');
  db = await openAccess(folder);
});
afterEach(async () => {
  vi.useRealTimers();
  await db.destroy();
});

const refusedBy = async (work: Promise<unknown>): Promise<string> => {
  const error = await work.then(
    () => null,
    (thrown: unknown) => thrown,
  );
  expect(error).toBeInstanceOf(Problem);
  return (error as Problem).message;
};
const owner = () => addPerson(db, OWNER);
/** Only the clock stands: hashing takes real time. */
const atTime = (milliseconds: number) => {
  vi.useFakeTimers({ toFake: ['Date'] });
  vi.setSystemTime(milliseconds);
};
const START = Date.parse('2026-11-29T10:00:00Z');

describe('people', () => {
  it('begin with an owner, of whom there is one', async () => {
    expect(await hasOwner(db)).toBe(false);
    expect(await refusedBy(addPerson(db, COACH))).toMatch(/no owner yet/);
    await owner();
    expect(await hasOwner(db)).toBe(true);
    expect(await refusedBy(addPerson(db, { ...OWNER, name: 'Another' }))).toMatch(/has an owner/);
    await addPerson(db, COACH);
    expect(await refusedBy(addPerson(db, { ...COACH, name: 'tomas REED' }))).toMatch(
      /here already/,
    );
    expect((await people(db)).map(({ name }) => name)).toEqual(['Ilse Brandt', 'Tomas Reed']);
  });

  it('hand the gym on, and the owner cannot be removed', async () => {
    const [first, second] = [await owner(), await addPerson(db, COACH)];
    expect(await refusedBy(endPerson(db, first.id))).toMatch(/This is the owner/);
    expect(await refusedBy(setRole(db, first.id, 'assistant'))).toMatch(/This is the owner/);
    await handOn(db, first.id, second.id);
    expect((await people(db)).map(({ role }) => role)).toEqual(['owner', 'coach']);
    await setRole(db, first.id, 'assistant');
    expect(await refusedBy(handOn(db, second.id, first.id))).toMatch(/one of its coaches/);
    await endPerson(db, first.id);
    expect(await people(db)).toHaveLength(1);
  });

  it('keep no passcode and no token that could be read', async () => {
    await owner();
    const { token } = await signIn(db, OWNER, null, 'Linux');
    const code = await newPairing(db, (await people(db))[0]!.id);
    const raw = new Database(accessPath(folder));
    raw.pragma('wal_checkpoint(truncate)');
    raw.close();
    const bytes = readFileSync(accessPath(folder), 'latin1');
    for (const secret of [OWNER.passcode, token, code]) expect(bytes).not.toContain(secret);
    expect(bytes).toContain('$argon2id$v=19$m=65536,t=3,p=4$');
  });

  it('are known by an Argon2id hash that the reference implementation has made', async () => {
    // `printf harbour-42 | argon2 saltsalt -id -t 3 -k 65536 -p 4 -e`, Debian's argon2 20171227 (RFC 9106).
    const passcode =
      '$argon2id$v=19$m=65536,t=3,p=4$c2FsdHNhbHQ$9DDNjP/MjS5V1MwevH5GXjifpR2cXW3ckTkqkBpv/gI';
    const { id } = await owner();
    await db.updateTable('person').set({ passcode }).where('id', '=', id).execute();
    expect((await signIn(db, OWNER, null, '')).asker.name).toBe(OWNER.name);
    await refusedBy(signIn(db, { ...OWNER, passcode: 'harbour-43' }, null, ''));
  });
});

describe('a passcode', () => {
  it.each(['short', '11111111', '12345678', 'hgfedcba', 'aabbaabb', ''])(
    '%j is refused',
    (code) => {
      expect(passcodeSchema.safeParse(code).success).toBe(false);
    },
  );

  it('lets in who has it, by the name in any letters', async () => {
    const { id } = await owner();
    const { token, asker } = await signIn(
      db,
      { name: ' ilse BRANDT ', passcode: OWNER.passcode },
      null,
      'Linux',
    );
    expect(asker).toMatchObject({ personId: id, role: 'owner', isByPhone: false });
    expect(await whoseToken(db, token, 'passcode')).toEqual(asker);
    // What is kept for a phone is not taken for a sign-in.
    expect(await whoseToken(db, token, 'phone')).toBeNull();
    expect(await whoseToken(db, `${token}x`, 'passcode')).toBeNull();
  });

  it('is told as wrong in the same words whether the name is there or not', async () => {
    await owner();
    const known = await refusedBy(signIn(db, { ...OWNER, passcode: 'wrong-one' }, null, ''));
    const unknown = await refusedBy(signIn(db, { ...OWNER, name: 'Nobody' }, null, ''));
    expect(known).toBe(unknown);
  });

  it('set anew signs out all that came in by the old one, but for one', async () => {
    const { id } = await owner();
    const [here, there] = [await signIn(db, OWNER, null, 'a'), await signIn(db, OWNER, null, 'b')];
    const phone = await pair(db, await newPairing(db, id), null, 'c');
    await setPasscode(db, id, 'lighthouse-9', here.asker.signInId);
    expect(await whoseToken(db, here.token, 'passcode')).not.toBeNull();
    expect(await whoseToken(db, there.token, 'passcode')).toBeNull();
    expect(await whoseToken(db, phone.token, 'phone')).not.toBeNull();
    await refusedBy(signIn(db, OWNER, null, ''));
    expect(
      (await signIn(db, { ...OWNER, passcode: 'lighthouse-9' }, null, '')).asker.personId,
    ).toBe(id);
  });
});

describe('a sign-in', () => {
  it('lasts for half a day since it was used, and no longer', async () => {
    await owner();
    atTime(START);
    const { token } = await signIn(db, OWNER, null, 'Linux');
    const hours = (count: number) => START + count * 3_600_000;
    atTime(hours(11));
    expect(await whoseToken(db, token, 'passcode')).not.toBeNull();
    atTime(hours(22));
    expect(await whoseToken(db, token, 'passcode')).not.toBeNull();
    atTime(hours(34.1));
    expect(await whoseToken(db, token, 'passcode')).toBeNull();
    expect(await signIns(db, null)).toEqual([]);
  });

  it('ends when it is ended, and with its person', async () => {
    await owner();
    const coach = await addPerson(db, COACH);
    const [one, two] = [await signIn(db, COACH, null, 'a'), await signIn(db, COACH, null, 'b')];
    await endSignIns(db, { id: one.asker.signInId! });
    expect(await whoseToken(db, one.token, 'passcode')).toBeNull();
    expect((await signIns(db, coach.id)).map(({ device }) => device)).toEqual(['b']);
    await endPerson(db, coach.id);
    expect(await whoseToken(db, two.token, 'passcode')).toBeNull();
    await refusedBy(signIn(db, COACH, null, 'c'));
  });

  it('follows what its person may do, at once', async () => {
    await owner();
    const coach = await addPerson(db, COACH);
    const { token } = await signIn(db, COACH, null, 'a');
    await setRole(db, coach.id, 'assistant');
    expect((await whoseToken(db, token, 'passcode'))?.role).toBe('assistant');
  });
});

describe('a phone', () => {
  it('is paired by a code that works once', async () => {
    const { id } = await owner();
    const code = await newPairing(db, id);
    expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{5}-[0-9A-HJKMNP-TV-Z]{5}$/);
    expect(await isUsed(db, code)).toBe(false);
    const { asker } = await pair(db, ` ${code.toLowerCase().replace('-', ' ')}`, null, 'iPhone');
    // Without a passcode it films, whoever's it is.
    expect(asker).toMatchObject({ personId: id, role: 'assistant', isByPhone: true });
    expect(await isUsed(db, code)).toBe(true);
    expect(await refusedBy(pair(db, code, null, 'iPhone'))).toMatch(/does not work/);
  });

  it('is not paired by a code that is too old, or of somebody who is gone', async () => {
    await owner();
    const coach = await addPerson(db, COACH);
    atTime(START);
    const old = await newPairing(db, coach.id);
    const young = await newPairing(db, coach.id);
    await endPerson(db, coach.id);
    await refusedBy(pair(db, young, null, ''));
    atTime(START + CODE_LASTS + 1);
    await refusedBy(pair(db, old, null, ''));
  });

  it('is paired once when two ask with one code in the same moment', async () => {
    const { id } = await owner();
    const code = await newPairing(db, id);
    const all = await Promise.allSettled([1, 2, 3].map(() => pair(db, code, null, '')));
    expect(all.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  });

  it('takes a code as people type it', () => {
    expect(typedCode('o0il1-abcde')).toBe('00111-ABCDE');
    const all = new Set(Array.from({ length: 500 }, newCode));
    expect(all.size).toBe(500);
    for (const code of all) expect(typedCode(code.toLowerCase())).toBe(code);
  });
});

describe('wrong codes', () => {
  it('cost nothing at first, then twice as long each time, an hour at most', () => {
    expect([1, 4, 5, 6, 7, 30].map((count) => waitAfter(count) / 1000)).toEqual([
      0, 0, 15, 30, 60, 3600,
    ]);
  });

  it('bound a guesser to some hundred tries a day, however many are made at once', async () => {
    let tried = 0;
    for (let second = 0; second < 86_400; second += 10) {
      const at = new Date(START + 1000 * second);
      const burst = [1, 2, 3].map(() => countTries(db, [{ key: 'network x' }], at));
      tried += (await Promise.allSettled(burst)).filter(
        ({ status }) => status === 'fulfilled',
      ).length;
    }
    expect(tried).toBeGreaterThan(20);
    expect(tried).toBeLessThan(60);
  });

  it('of one address do not lock out another, nor the machine; of many they do in the end', async () => {
    await owner();
    const wrong = { ...OWNER, passcode: 'wrong-one-1' };
    const tryFrom = (from: string | null, given: typeof wrong | typeof OWNER = wrong) =>
      refusedBy(signIn(db, given, from, ''));
    for (let i = 0; i < 5; i++) expect(await tryFrom('10.0.0.9')).toMatch(/do not belong/);
    // The sixth waits, right or wrong.
    expect(await tryFrom('10.0.0.9', OWNER)).toMatch(/^Too many wrong codes: .* 15 seconds/);
    expect((await signIn(db, OWNER, '10.0.0.8', '')).asker.name).toBe(OWNER.name);
    expect((await signIn(db, OWNER, null, '')).asker.name).toBe(OWNER.name);
    for (let i = 0; i < 31; i++) await countTries(db, [{ key: 'many', free: 30 }]);
    expect(await refusedBy(countTries(db, [{ key: 'many', free: 30 }]))).toMatch(/Too many/);
  });

  it('for ever other names wait as well', async () => {
    await owner();
    // As if thirty-one names had been tried already: each takes its time.
    const tries = [{ key: '10.0.0.9 anybody', free: 30 }];
    for (let i = 0; i < 31; i++) await countTries(db, tries);
    expect(await refusedBy(signIn(db, OWNER, '10.0.0.9', ''))).toMatch(/^Too many wrong codes/);
    expect((await signIn(db, OWNER, '10.0.0.8', '')).asker.name).toBe(OWNER.name);
  });

  it('are forgotten when the right one comes, and a clock set back locks nobody for long', async () => {
    const key = 'x';
    for (let i = 0; i < 5; i++) await countTries(db, [{ key }], new Date(START));
    await refusedBy(countTries(db, [{ key }], new Date(START + 1000)));
    await countTries(db, [{ key }], new Date(START - 86_400_000));
    await wasRight(db, [{ key }]);
    for (let i = 0; i < 4; i++) await countTries(db, [{ key }], new Date(START));
  });

  it('of names that nobody has do not fill the disk', async () => {
    for (let i = 0; i < 2100; i++)
      await countTries(db, [{ key: `name ${i}` }], new Date(START + i));
    const { count } = await db
      .selectFrom('wrong_code')
      .select(({ fn }) => fn.countAll<number>().as('count'))
      .executeTakeFirstOrThrow();
    expect(count).toBeLessThanOrEqual(2001);
  });
});
