/** Plans, sessions and days, on a database. */
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { SESSIONS } from '@sinew/core/train/work/session';
import { keepSession, saveSettings, sessionsOf, settingsOf } from '@/data/gym/gym';
import { addItem, calendarOf, moveItem, planBetween, planBlock } from '@/data/work/plan';
import { dayIn } from '@/data/database/today';
import { emptyGym, type TestGym } from './support';

let gym: TestGym;
beforeEach(async () => {
  gym = await emptyGym();
});

describe('a plan', () => {
  const item = (day: string, title: string) => ({
    day,
    title,
    kind: 'note' as const,
    session: null,
    studentId: null,
  });
  const titles = async () =>
    (await planBetween(gym.db, '2026-01-01', '2027-01-01')).map(({ title }) => title);

  it('keeps what was moved where it was dropped', async () => {
    const [a, b, c] = [
      await addItem(gym.db, item('2026-03-02', 'a')),
      await addItem(gym.db, item('2026-03-02', 'b')),
      await addItem(gym.db, item('2026-03-03', 'c')),
    ];
    await moveItem(gym.db, c, '2026-03-02', b);
    expect(await titles()).toEqual(['a', 'c', 'b']);
    await moveItem(gym.db, a, '2026-03-02', null);
    expect(await titles()).toEqual(['c', 'b', 'a']);
    await moveItem(gym.db, a, '2026-03-01', null);
    expect(await titles()).toEqual(['a', 'c', 'b']);
  });

  it('of a block is all there or not at all', async () => {
    const block = { name: 'Open floor', from: '2026-03-16', weekdays: [1, 3] };
    await expect(planBlock(gym.db, { ...block, target: '2026-03-01' })).rejects.toThrow(/after/);
    expect(await titles()).toEqual([]);
    const count = await planBlock(gym.db, { ...block, target: '2026-04-16' });
    expect(await titles()).toHaveLength(count + 1);
  });

  it('goes out as whole days of the calendar, over a change of clocks too (RFC 5545)', async () => {
    for (const day of ['2028-02-29', '2028-03-26']) await addItem(gym.db, item(day, `on ${day}`));
    const file = await calendarOf(gym.db, '2028-02-01');
    expect(file).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(file).toContain('DTSTART;VALUE=DATE:20280229\r\nDTEND;VALUE=DATE:20280301');
    expect(file).toContain('DTSTART;VALUE=DATE:20280326\r\nDTEND;VALUE=DATE:20280327');
    expect(file.match(/BEGIN:VEVENT/g)).toHaveLength(2);
  });
});

describe('the gym’s sessions', () => {
  const slow = SESSIONS.find(({ id }) => id === 'slow-day')!;

  it('are Sinew’s until they are changed, and can go back', async () => {
    expect(await sessionsOf(gym.db)).toEqual(SESSIONS);
    const slower = { ...slow, name: 'Very slow day' };
    await keepSession(gym.db, slower, slow);
    const own = { ...slow, id: 'own-abc', name: 'Ropes' };
    await keepSession(gym.db, own, own);
    const names = (await sessionsOf(gym.db)).map(({ name }) => name);
    expect(names).toHaveLength(SESSIONS.length + 1);
    expect(names).toEqual(expect.arrayContaining(['Very slow day', 'Ropes']));
    await keepSession(gym.db, null, slower);
    await keepSession(gym.db, null, own);
    expect(await sessionsOf(gym.db)).toEqual(SESSIONS);
  });

  it('stay when the gym’s name is changed', async () => {
    await keepSession(gym.db, { ...slow, name: 'Very slow day' }, slow);
    await saveSettings(gym.db, { ...(await settingsOf(gym.db)), name: 'Renamed' });
    expect((await sessionsOf(gym.db)).map(({ name }) => name)).toContain('Very slow day');
  });
});

describe.each([
  ['UTC', 0],
  ['Europe/Oslo', -60],
  ['America/New_York', 300],
  ['Australia/Lord_Howe', -660],
  ['Pacific/Kiritimati', -840],
] as const)('in the time zone %s', (zone, offset) => {
  const before = process.env.TZ;
  beforeEach(() => {
    process.env.TZ = zone;
  });
  afterEach(() => {
    process.env.TZ = before;
  });

  it('every day comes once, in order, over both changes of the clocks and the leap day', () => {
    // Minutes behind Greenwich on that day (IANA time zone database).
    expect(new Date(2028, 0, 1).getTimezoneOffset()).toBe(offset);
    let day = dayIn(new Date(2028, 0, 1, 12));
    expect(day).toBe('2028-01-01');
    // Half an hour at a time: Lord Howe moves its clocks by no more.
    for (let at = new Date(2028, 0, 1, 12).getTime(); at < new Date(2029, 0, 2).getTime();) {
      at += 1_800_000;
      const next = dayIn(new Date(at));
      if (next === day) continue;
      expect(next).toBe(plusDays(day, 1));
      day = next;
    }
    expect(day).toBe('2029-01-02');
  });
});

it('the day is that of the wall clock, at every hour of every day', () => {
  const moment = fc.date({
    min: new Date(2020, 0, 1),
    max: new Date(2035, 0, 1),
    noInvalidDate: true,
  });
  fc.assert(
    fc.property(moment, (date) => {
      const [year, month, day] = dayIn(date).split('-').map(Number);
      expect([year, month, day]).toEqual([date.getFullYear(), date.getMonth() + 1, date.getDate()]);
    }),
  );
});
