/** Consent that films leave this machine: its own, a guardian’s for a minor, and over with the other. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { today } from '@/data/database/today';
import { allowSharing, endSharing, sharingInput, sharingOf } from '@/data/student/sharing';
import { studentById, withdrawConsent } from '@/data/student/students';
import { allow, mayBeSent, stopSharing } from '@/screens/card/sharingActions';
import { startApp, type TestApp } from '../app';
import { student, type TestGym } from '../support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));

let app: TestApp;
let gym: TestGym;
beforeEach(async () => {
  app = await startApp();
  gym = app.gym;
});
afterEach(() => app.stop());
const of = async (id: string) => (await studentById(gym.db, id))!;
const standing = async (id: string) => sharingOf(gym.db, await of(id));
const allowed = async (id: string, key = 'key-of-the-form') =>
  allowSharing(gym.db, await of(id), { id: key, name: 'Ada Storm' });

describe('consent to share', () => {
  it('is not there until it is given, and not by consent to be filmed', async () => {
    const id = await student(gym);
    expect(await standing(id)).toBeNull();
    await allowed(id);
    expect(await standing(id)).toMatchObject({
      givenBy: 'student',
      name: 'Ada Storm',
      givenOn: today(),
    });
  });

  it('sent twice is one, and withdrawn is none', async () => {
    const id = await student(gym);
    await allowed(id);
    await allowed(id);
    const rows = await gym.db.selectFrom('sharing').selectAll().execute();
    expect(rows).toHaveLength(1);
    await endSharing(gym.db, id);
    expect(await standing(id)).toBeNull();
    await allowed(id, 'another-form');
    expect(await standing(id)).not.toBeNull();
  });

  it('ends with the consent to be filmed, and does not come back with a new one', async () => {
    const id = await student(gym);
    await allowed(id);
    await withdrawConsent(gym.db, id, today());
    expect(await standing(id)).toBeNull();
    expect(
      await gym.db.selectFrom('sharing').select('withdrawn_at').executeTakeFirst(),
    ).not.toEqual({
      withdrawn_at: null,
    });
  });

  it('of a minor is a guardian’s; one given by themselves does not hold', async () => {
    const id = await student(gym, { isMinor: true, consent: 'guardian' });
    await allowed(id);
    expect(await standing(id)).toMatchObject({ givenBy: 'guardian' });
    await gym.db.updateTable('sharing').set({ given_by: 'student' }).execute();
    expect(await standing(id)).toBeNull();
  });

  it('needs a name', () => {
    expect(sharingInput.safeParse({ id: 'key-of-the-form', name: ' ' }).success).toBe(false);
    expect(sharingInput.safeParse({ id: '../x', name: 'Ada' }).success).toBe(false);
  });
});

describe('what is sent', () => {
  const deeds = async () =>
    (await gym.db.selectFrom('deed').select('what').orderBy('id').execute()).map(
      ({ what }) => what,
    );

  it('is made only with consent, asked for anew each time, and written down', async () => {
    const id = await student(gym);
    expect(await mayBeSent(id, 'Hips first.')).toMatch(/^Nothing was made/);
    expect(await allow(id, { id: 'key-of-the-form', name: '' })).toBe(
      'Who gave it? Write the name.',
    );
    expect(await allow(id, { id: 'key-of-the-form', name: 'Ada Storm' })).toBeNull();
    expect(await mayBeSent(id, 'Hips first.')).toBeNull();
    expect(await stopSharing(id)).toBeNull();
    expect(await mayBeSent(id, 'Hips first.')).toMatch(/^Nothing was made/);
    expect(await deeds()).toEqual(['allowed-sharing', 'sent-home', 'ended-sharing']);
  });

  it('needs the consent to be filmed first, and a student who is there', async () => {
    const id = await student(gym, { consent: null });
    const input = { id: 'key-of-the-form', name: 'Ada Storm' };
    expect(await allow(id, input)).toMatch(/^First the consent to be filmed/);
    expect(await allow('nobody', input)).toMatch(/not in the list/);
    expect(await mayBeSent('nobody', '')).toMatch(/not in the list/);
  });
});
