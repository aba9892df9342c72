/** How the gym writes measures and days: read anew, typed in, and never in what is kept. */
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { pastDay } from '@/data/database/today';
import { settingsOf } from '@/data/gym/gym';
import {
  USUAL_MANNER,
  asKept,
  asShown,
  fieldUnit,
  inManner,
  instant,
  manner,
  quantity,
  setManner,
  shortDay,
  type Manner,
  wholeDay,
} from '@/manner/manner';
import { studentById } from '@/data/student/students';
import { keepSettings } from '@/screens/gym/actions';
import { saveStudent } from '@/screens/student/actions';
import { MEASURED, seenOf, valuesOf } from '@/screens/student/studentValues';
import { startApp, type TestApp } from './app';
import { student } from './support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));

const INCHES: Manner = { measures: 'inches', days: 'month-first' };
let app: TestApp;
beforeAll(async () => (app = await startApp()));
afterEach(() => setManner(USUAL_MANNER));
afterAll(() => app.stop());

describe('how the gym writes', () => {
  it('days with the month first, whoever writes the sentence', () => {
    expect(shortDay('2026-11-25')).toBe('Wed 25 Nov');
    setManner(INCHES);
    expect(shortDay('2026-11-25')).toBe('Wed Nov 25');
    expect(wholeDay('2026-11-25')).toBe('Wed Nov 25, 2026');
    expect(pastDay('2019-01-03')).toBe('Thu Jan 3, 2019');
    expect(inManner('left knee, noted on Tue 3 Mar')).toBe('left knee, noted on Tue Mar 3');
    expect(inManner(inManner('until Wed 25 Nov 2026'))).toBe('until Wed Nov 25, 2026');
    expect(instant('2026-11-25T14:30:00')).toMatch(/^Nov 25, 2026/);
    expect(quantity(0.12, 'm')).toBe('4.7 in');
  });

  it('numbers that are typed, and gives them back the same', () => {
    for (const measures of ['metric', 'inches'] as const) {
      setManner({ ...INCHES, measures });
      for (let millimetres = 800; millimetres <= 2500; millimetres++) {
        const centimetres = millimetres / 10;
        const { shown, kept } = fieldUnit('cm');
        expect(Math.round(10 * kept(Number(shown(centimetres)))) / 10).toBe(centimetres);
      }
    }
    const typed = { heightCm: '5,5', massKg: 'heavy', name: 'N' };
    setManner(INCHES);
    expect(asKept(typed, MEASURED)).toEqual({ ...typed, heightCm: '13.97' });
    expect(asShown({ heightCm: '', massKg: '70' }, MEASURED)).toEqual({
      heightCm: '',
      massKg: '154.32',
    });
  });

  it('for everybody from the moment it is set, and after the next start', async () => {
    const settings = await settingsOf(app.gym.db);
    expect(settings.manner).toEqual(USUAL_MANNER);
    expect(await keepSettings({ ...settings, manner: INCHES }, settings)).toBeNull();
    expect(manner()).toEqual(INCHES);
    const { closeDatabase, database } = await import('@/data/database/database');
    setManner(USUAL_MANNER);
    await closeDatabase();
    await database();
    expect(manner()).toEqual(INCHES);
  });

  it('as the gym that is taken over does', async () => {
    const file = await (await app.fetch('/api/gym')).arrayBuffer();
    setManner(USUAL_MANNER);
    expect((await app.fetch('/api/gym', { method: 'PUT', body: file })).status).toBe(200);
    expect(manner()).toEqual(INCHES);
  });

  it('a student’s height and mass, which are kept in metres and kilograms', async () => {
    const { database } = await import('@/data/database/database');
    const db = await database();
    const id = await student({ ...app.gym, db });
    setManner(INCHES);
    const form = new FormData();
    const before = await studentById(db, id);
    const values = { ...valuesOf(before), heightCm: '68', massKg: '150,5' };
    for (const [name, value] of Object.entries(values)) form.set(name, value);
    form.set('seen', seenOf(before));
    expect((await saveStudent(id, { values: {}, errors: {} }, form)).errors).toEqual({});
    const after = (await studentById(db, id))!;
    expect(after.heightM).toBeCloseTo(1.727, 3);
    expect(after.massKg).toBeCloseTo(68.27, 2);
    form.set('seen', seenOf(after));
    form.set('heightCm', '12');
    const refused = await saveStudent(id, { values: {}, errors: {} }, form);
    expect(refused.errors.heightCm).toBe('Height: 31.5 to 98.4 in.');
    expect(refused.values.heightCm).toBe('12');
  });
});
