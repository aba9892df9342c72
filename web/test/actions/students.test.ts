/** Actions on students: what a form keeps, refuses and says; consents; whose clip it is. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { today } from '@/data/database/today';
import { measureLater } from '@/data/finding/measureLater';
import { trash } from '@/data/maintenance/trash';
import { studentById } from '@/data/student/students';
import { saveBands } from '@/screens/bands/actions';
import * as students from '@/screens/student/actions';
import { seenOf } from '@/screens/student/studentValues';
import { startApp, type TestApp } from '../app';
import { markedClip, student } from '../support';
import { expectSentence, form, isShown } from './kit';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

let app: TestApp;
let who: string;

beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.stop());
beforeEach(async () => {
  vi.clearAllMocks();
  who = await student(app.gym);
});

const EMPTY = { values: {}, errors: {} };

describe('the girths of a student’s bands', () => {
  const NONE = JSON.stringify({
    kind: 'printed',
    girths: { hips: null, ribs: null },
    seam: 'front',
  });
  const sent = (change: object = {}) =>
    saveBands(
      who,
      { ...EMPTY, isSaved: false },
      form({ kind: 'tape', hipsCm: '96,5', ribsCm: '', seam: 'front', seen: NONE, ...change }),
    );

  it('are kept as they are typed; an empty one is not known', async () => {
    expect((await sent()).isSaved).toBe(true);
    expect((await studentById(app.gym.db, who))!.bands).toEqual({
      kind: 'tape',
      girths: { hips: 0.965, ribs: null },
      seam: 'front',
    });
    expect(isShown()).toBe(true);
  });

  it('are not written over what somebody else has typed meanwhile', async () => {
    await sent();
    const late = await sent({ hipsCm: '90' });
    expect(late.isSaved).toBe(false);
    expectSentence(late.errors.form);
    expect(late.values.hipsCm).toBe('90');
    expect((await studentById(app.gym.db, who))!.bands.girths.hips).toBe(0.965);
  });

  it('are refused when nobody is as thick, and nothing is saved', async () => {
    const answer = await sent({ hipsCm: '960' });
    expect(answer.isSaved).toBe(false);
    expectSentence(answer.errors.hipsCm);
    expect(answer.values.hipsCm).toBe('960');
    expect((await studentById(app.gym.db, who))!.bands.girths.hips).toBeNull();
    expect(
      (
        await saveBands(
          'nobody',
          answer,
          form({ kind: 'printed', hipsCm: '', ribsCm: '', seam: 'back' }),
        )
      ).errors.form,
    ).toMatch(/not in the list/);
  });
});

describe('a student’s form', () => {
  const fields = {
    name: 'Tova Brandt',
    stance: 'southpaw',
    bornOn: '2001-05-06',
    heightCm: '171,5',
    massKg: '64',
    key: 'key-of-the-form',
  };

  it('adds a student once, however often it is sent', async () => {
    const first = await students.saveStudent(null, EMPTY, form(fields));
    const second = await students.saveStudent(null, EMPTY, form(fields));
    expect(first.saved).toBeTruthy();
    expect(second.saved).toBe(first.saved);
    const kept = (await studentById(app.gym.db, first.saved!))!;
    expect(kept).toMatchObject({ name: 'Tova Brandt', stance: 'southpaw', heightM: 1.715 });
    expect(isShown()).toBe(true);
  });

  it('says of each field what is wrong with it, keeps what was typed, and saves nothing', async () => {
    const wrong = {
      ...fields,
      name: ' ',
      heightCm: '17',
      massKg: 'heavy',
      key: 'another-form-key',
    };
    const { errors, values, saved } = await students.saveStudent(null, EMPTY, form(wrong));
    expect(Object.keys(errors).sort()).toEqual(['heightCm', 'massKg', 'name']);
    Object.values(errors).forEach(expectSentence);
    expect(values.massKg).toBe('heavy');
    expect(saved).toBeUndefined();
    expect(isShown()).toBe(false);
  });

  it('changed has the films measured anew: stance and size are part of what is measured', async () => {
    const seen = seenOf(await studentById(app.gym.db, who));
    await students.saveStudent(who, EMPTY, form({ ...fields, name: 'Renamed', seen }));
    expect((await studentById(app.gym.db, who))!.name).toBe('Renamed');
    expect(measureLater).toHaveBeenCalledWith(who);
  });

  it('that another tab has changed meanwhile keeps what that tab kept, and says so', async () => {
    const seen = seenOf(await studentById(app.gym.db, who));
    await students.saveStudent(who, EMPTY, form({ ...fields, name: 'First', seen }));
    const second = await students.saveStudent(
      who,
      EMPTY,
      form({ ...fields, name: 'Second', seen }),
    );
    expect(second.errors.form).toMatch(/^This student was changed meanwhile/);
    expect(second.values.name).toBe('Second');
    expect((await studentById(app.gym.db, who))!.name).toBe('First');
  });

  it('of somebody who is gone says so', async () => {
    const { errors, saved } = await students.saveStudent('nobody', EMPTY, form(fields));
    expectSentence(errors.name);
    expect(saved).toBeUndefined();
  });

  it('keeps a birth date by itself, and no day that is none', async () => {
    expect(await students.saveBirthDate(who, '2012-02-29')).toBeNull();
    expect((await studentById(app.gym.db, who))!.bornOn).toBe('2012-02-29');
    for (const day of ['2013-02-29', plusDays(today(), 1), 'soon', '']) {
      expectSentence(await students.saveBirthDate(who, day));
    }
    expect((await studentById(app.gym.db, who))!.bornOn).toBe('2012-02-29');
  });

  it('is put into the archive, put away, and brought back', async () => {
    await students.archive(who, true);
    expect((await studentById(app.gym.db, who))!.isArchived).toBe(true);
    await students.archive(who, false);
    expect((await studentById(app.gym.db, who))!.isArchived).toBe(false);
    const isAway = async () => (await trash(app.gym.db)).some(({ id }) => id === who);
    await students.setPutAway('student', who, true);
    expect(await isAway()).toBe(true);
    await students.setPutAway('student', who, false);
    expect(await isAway()).toBe(false);
    await expect(students.setPutAway('gym' as never, who, true)).rejects.toThrow();
  });
});

describe('a consent', () => {
  const consentsOf = (id: string) =>
    app.gym.db.selectFrom('consent').selectAll().where('student_id', '=', id).execute();
  const fields = { givenBy: 'student', name: 'Tova Brandt', givenOn: '2026-01-02' };
  const key = 'key-of-the-consent';

  it('is recorded once, mended, and withdrawn', async () => {
    const nobody = await student(app.gym, { consent: null });
    const send = (id: string | null, change = {}) =>
      students.saveConsent(nobody, id, EMPTY, form({ ...fields, key, ...change }));
    await send(null);
    await send(null);
    const [consent, ...others] = await consentsOf(nobody);
    expect(others).toEqual([]);
    await send(consent!.id, { name: 'T. Brandt' });
    expect((await consentsOf(nobody))[0]!.name).toBe('T. Brandt');
    const until = plusDays(today(), 30);
    expect(await students.endConsent(nobody, { films: 'keep', until })).toBeNull();
    expect((await consentsOf(nobody))[0]!.films_until).toBe(until);
  });

  it('needs a name and a day that has been', async () => {
    const { errors } = await students.saveConsent(
      who,
      null,
      EMPTY,
      form({ givenBy: 'student', name: '', givenOn: plusDays(today(), 1), key }),
    );
    expect(Object.keys(errors).sort()).toEqual(['givenOn', 'name']);
    Object.values(errors).forEach(expectSentence);
  });

  it('that ends must say what becomes of the films', async () => {
    expectSentence(await students.endConsent(who, { films: 'keep', until: '' }));
    expectSentence(await students.endConsent(who, { films: 'keep', until: today() }));
    expect((await consentsOf(who))[0]!.withdrawn_at).toBeNull();
  });
});

it('a clip goes to whose it is, with everything of it', async () => {
  const [mine, yours] = [who, await student(app.gym)];
  const { clipId } = await markedClip(app.gym, mine);
  const outcome = await students.moveTo(clipId, yours);
  expect(outcome).toEqual({ moved: 1 });
  const { student_id } = await app.gym.db
    .selectFrom('clip')
    .select('student_id')
    .where('id', '=', clipId)
    .executeTakeFirstOrThrow();
  expect(student_id).toBe(yours);
});
