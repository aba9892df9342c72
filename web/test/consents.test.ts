/** Ages, consents that are cleanDetections or withdrawn, and films that were added to the wrong student. */
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { backUp } from '@/data/maintenance/backups';
import { addClip, clipById, clipSummaries } from '@/data/clip/clips';
import { acceptFinding, activeCues } from '@/data/finding/findings';
import { confirmClock } from '@/data/maintenance/clock';
import { forget, lookAfter, maintain } from '@/data/maintenance/maintain';
import { strikesNow } from '@/data/finding/measured';
import { moveClip } from '@/data/clip/moveClip';
import {
  addStudent,
  allStudents,
  changeConsent,
  consentForm,
  recordConsent,
  setBirthDate,
  studentById,
  studentForm,
  withdrawalForm,
  withdrawConsent,
} from '@/data/student/students';
import { DAY_MS, today } from '@/data/database/today';
import { filmsWithoutConsent, purgeFilms } from '@/data/maintenance/trash';
import { emptyGym, film, markedClip, newClip, student, type TestGym } from './support';

let gym: TestGym;
beforeEach(async () => {
  gym = await emptyGym();
});

const filmsIn = (folder: string) => {
  const path = join(gym.folder, folder);
  return existsSync(path)
    ? readdirSync(path, { recursive: true }).filter((one) => String(one).endsWith('.bin'))
    : [];
};
const yearsAgo = (years: number) => `${Number(today().slice(0, 4)) - years}${today().slice(4)}`;
const first = async () => (await allStudents(gym.db))[0]!;

describe('a student', () => {
  const input = (bornOn: string) =>
    studentForm.parse({ name: 'Somebody', stance: 'orthodox', bornOn });

  it('is a minor until 18 and a junior until 16, by the day of birth', async () => {
    for (const [age, isMinor, isJunior] of [
      [15, true, true],
      [16, true, false],
      [17, true, false],
      [18, false, false],
    ] as const) {
      const id = await addStudent(gym.db, input(yearsAgo(age)));
      expect(await studentById(gym.db, id), String(age)).toMatchObject({ isMinor, isJunior });
    }
    const tomorrow = await addStudent(gym.db, input(plusDays(yearsAgo(18), 1)));
    expect(await studentById(gym.db, tomorrow)).toMatchObject({ isMinor: true });
  });

  it('needs a day of birth that was', () => {
    const said = (bornOn: string) =>
      studentForm.safeParse({ name: 'S', stance: 'orthodox', bornOn }).error?.issues[0]?.message;
    expect(said('')).toMatch(/day of birth/);
    expect(said('2999-01-01')).toBe('This day is still to come.');
  });

  it('from before birth dates is what the tick said, and the younger, until it is known', async () => {
    const id = await addStudent(gym.db, input('1990-01-01'));
    await gym.db.updateTable('student').set({ born_on: null, is_minor: 1 }).execute();
    expect(await first()).toMatchObject({ bornOn: null, isMinor: true, isJunior: true });
    await setBirthDate(gym.db, id, yearsAgo(17));
    expect(await first()).toMatchObject({ isMinor: true, isJunior: false });
  });

  it('is added once, however often the form is sent', async () => {
    for (let i = 0; i < 3; i++) await addStudent(gym.db, input('1990-01-01'), 'one-form-sent');
    expect(await allStudents(gym.db)).toHaveLength(1);
  });
});

describe('a consent', () => {
  const given = { givenBy: 'student', name: 'S', givenOn: '2026-01-02' } as const;

  it('that ends on a day that is past is refused', () => {
    const said = (expiresOn: string) =>
      consentForm.safeParse({ ...given, expiresOn }).error?.issues[0]?.message;
    expect(said(today())).toMatch(/This day is past/);
    expect(said('2020-01-01')).toMatch(/This day is past/);
    expect(said(plusDays(today(), 1))).toBeUndefined();
  });

  it('is recorded once, and mended without being withdrawn', async () => {
    const id = await student(gym, { consent: null });
    for (let i = 0; i < 2; i++) await recordConsent(gym.db, id, given, 'one-form-sent');
    const until = plusDays(today(), 90);
    const cleanDetections = { ...given, name: 'Somebody Else', expiresOn: until };
    expect(await changeConsent(gym.db, 'one-form-sent', cleanDetections)).toBe(true);
    expect((await first()).consent).toMatchObject({ name: 'Somebody Else', expiresOn: until });
    const rows = await gym.db.selectFrom('consent').select('id').execute();
    expect(rows).toHaveLength(1);
    await withdrawConsent(gym.db, id, until);
    expect(await changeConsent(gym.db, 'one-form-sent', cleanDetections)).toBe(false);
  });

  describe('that is withdrawn', () => {
    let id: string;
    beforeEach(async () => {
      id = await student(gym);
      await markedClip(gym, id);
      await backUp(gym.folder, join(gym.folder, 'backups'), new Date(), {
        isRotated: true,
      });
    });

    it('takes the films at once, from the backups too, and leaves the numbers', async () => {
      await withdrawConsent(gym.db, id, today());
      const films = await filmsWithoutConsent(gym.db, today());
      await forget(gym.folder, await purgeFilms(gym.db, gym.files, films));
      expect([filmsIn('clips'), filmsIn('backups/clips')]).toEqual([[], []]);
      expect((await strikesNow(gym.db, id)).strikes).toHaveLength(1);
    });

    it('leaves a film that another student has as well, in the backups too', async () => {
      const other = await student(gym);
      await addClip(gym.db, gym.files, newClip(other, film('cross-clean.mp4')));
      await withdrawConsent(gym.db, id, today());
      const films = await filmsWithoutConsent(gym.db, today());
      await forget(gym.folder, await purgeFilms(gym.db, gym.files, films));
      expect([filmsIn('clips').length, filmsIn('backups/clips').length]).toEqual([1, 1]);
    });

    it('leaves the films until the day that was said', async () => {
      const keep = async (days: number) => {
        const at = new Date(Date.now() + days * DAY_MS);
        await confirmClock(gym.db, gym.folder, at);
        await maintain(gym, at, await lookAfter(gym, at));
      };
      await withdrawConsent(gym.db, id, plusDays(today(), 10));
      await keep(9);
      expect(filmsIn('clips')).toHaveLength(1);
      await keep(10.01);
      expect([filmsIn('clips'), filmsIn('backups/clips')]).toEqual([[], []]);
    });

    it('and given again before that day keeps them', async () => {
      await withdrawConsent(gym.db, id, today());
      await recordConsent(gym.db, id, given);
      expect(await filmsWithoutConsent(gym.db, today())).toEqual([]);
    });

    it('asks for a day to come when films are kept', () => {
      expect(withdrawalForm.safeParse({ films: 'erase', until: null }).success).toBe(true);
      expect(withdrawalForm.safeParse({ films: 'keep', until: '' }).success).toBe(false);
      expect(withdrawalForm.safeParse({ films: 'keep', until: today() }).success).toBe(false);
    });
  });
});

describe('a clip of somebody else', () => {
  it('moves with all that was marked, and the cue that came from it ends', async () => {
    const [from, to] = [await student(gym), await student(gym)];
    const { clipId, strikeId } = await markedClip(gym, from);
    await acceptFinding(gym.db, strikeId, 'all-at-once', false);
    expect(await moveClip(gym.db, clipId, to)).toEqual({ moved: 1 });
    expect(await clipSummaries(gym.db, from)).toEqual([]);
    const [clip] = await clipSummaries(gym.db, to);
    expect(clip!.strikes.map(({ id }) => id)).toEqual([strikeId]);
    expect(await activeCues(gym.db)).toEqual([]);
    const cue = await gym.db.selectFrom('cue').selectAll().executeTakeFirstOrThrow();
    expect(cue.closed_because).toBe('film moved');
  });

  it('stays where it is without consent, or when the film is there already', async () => {
    const [from, same, silent] = [
      await student(gym),
      await student(gym),
      await student(gym, { consent: null }),
    ];
    const { clipId } = await markedClip(gym, from);
    await addClip(gym.db, gym.files, newClip(same, film('cross-clean.mp4')));
    expect(await moveClip(gym.db, clipId, silent)).toMatchObject({
      problem: expect.stringContaining('consent') as string,
    });
    const outcome = await moveClip(gym.db, clipId, same);
    expect(outcome).toMatchObject({ problem: expect.stringContaining('already') as string });
    expect((await clipById(gym.db, clipId))!.studentId).toBe(from);
  });
});
