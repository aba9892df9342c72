/** What is done without being asked never takes away by a guess: lost databases, clocks that are wrong. */
import { existsSync, mkdirSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { backUp, backups, KEPT, restore } from '@/data/maintenance/backups';
import { addClip, clipById } from '@/data/clip/clips';
import { openDatabase } from '@/data/database/database';
import { confirmClock } from '@/data/maintenance/clock';
import { checkFilms } from '@/data/maintenance/checkFilms';
import { filmTroubles } from '@/data/maintenance/filmCheck';
import { forget, lookAfter, maintain } from '@/data/maintenance/maintain';
import { filmsAside } from '@/data/maintenance/setAside';
import { allStudents, recordConsent } from '@/data/student/students';
import { DAY_MS, dayIn } from '@/data/database/today';
import { setTrashed } from '@/data/maintenance/trash';
import { emptyGym, film, newClip, student, type TestGym } from './support';

const FILMS = ['cross-clean.mp4', 'cross-jammed.mp4', 'lead-hook-slap.mp4'];

let gym: TestGym;
let who: string;
beforeEach(async () => {
  gym = await emptyGym();
  who = await student(gym);
});

const at = (days: number) => new Date(Date.now() + days * DAY_MS);
const tick = async (when: Date) => {
  const upkeep = await lookAfter(gym, when);
  await maintain(gym, when, upkeep);
  return upkeep;
};
const filmsIn = (folder: string) => {
  const path = join(gym.folder, folder);
  if (!existsSync(path)) return [];
  return readdirSync(path, { recursive: true, encoding: 'utf8' }).filter((one) =>
    one.endsWith('.bin'),
  );
};
const backupNames = async () =>
  (await backups(join(gym.folder, 'backups'))).map(({ name }) => name);

async function addFilms(names: readonly string[] = FILMS): Promise<string[]> {
  const ids = [];
  for (const name of names)
    ids.push((await addClip(gym.db, gym.files, newClip(who, film(name)))).id);
  return ids;
}

/** A film that no clip names, as old as may be. */
function stray(letter: string, hoursOld = 2): void {
  const sha256 = letter.repeat(64);
  const folder = join(gym.folder, 'clips', sha256.slice(0, 2));
  mkdirSync(folder, { recursive: true });
  const path = join(folder, `${sha256}.bin`);
  writeFileSync(path, 'a film');
  const time = Date.now() / 1000 - hoursOld * 3600;
  utimesSync(path, time, time);
}

/** The same films, as a machine finds them the next morning. */
function aged(): void {
  for (const name of filmsIn('clips')) {
    const time = Date.now() / 1000 - 12 * 3600;
    utimesSync(join(gym.folder, 'clips', name), time, time);
  }
}

it('what was broken off half-way is swept after an hour, and nothing else', async () => {
  await addFilms(['cross-jammed.mp4']);
  const [kept] = filmsIn('clips');
  const half = 'abcdefghijklmnopqrstu';
  const old = [
    `restoring-${half}`,
    `clock.json.${half}`,
    `clips/${kept}.${half}`,
    `incoming/${half}`,
  ];
  const young = [`restoring-${half}2`, `clock.json.${half.toUpperCase()}`];
  const mine = ['notes.json.txt', 'restored-by-me.db', 'my.json.old'];
  mkdirSync(join(gym.folder, 'incoming'), { recursive: true });
  for (const name of [...old, ...young, ...mine]) {
    writeFileSync(join(gym.folder, name), 'half');
    const time = Date.now() / 1000 - (young.includes(name) ? 60 : 7200);
    utimesSync(join(gym.folder, name), time, time);
  }
  await tick(new Date());
  const isThere = (name: string) => existsSync(join(gym.folder, name));
  expect(old.filter(isThere)).toEqual([]);
  expect(young.filter(isThere)).toEqual(young);
  expect(mine.filter(isThere)).toEqual(mine);
  expect(filmsIn('clips')).toEqual([kept]);
});

describe('a database that is lost, empty or another one', () => {
  beforeEach(async () => {
    await addFilms();
    await tick(at(0));
    aged();
  });

  async function loseDatabase(): Promise<void> {
    await gym.db.destroy();
    for (const end of ['', '-wal', '-shm'])
      rmSync(join(gym.folder, `sinew.db${end}`), { force: true });
    gym = { ...gym, db: await openDatabase(gym.folder) };
  }

  it('removes no film, says so, and pushes no backup out, for weeks', async () => {
    const [before] = await backupNames();
    await loseDatabase();
    for (let day = 0; day < 2 * KEPT; day++) {
      const { strays } = await tick(at(day));
      expect(strays).toEqual({ strays: 3, films: 3, isEmpty: true });
    }
    expect(filmsIn('clips')).toHaveLength(3);
    expect(await filmsAside(gym.folder)).toEqual([]);
    expect(await backupNames()).toContain(before);
    expect(filmsIn('backups/clips')).toHaveLength(3);
  });

  it('is noticed at once, however young its films are', async () => {
    await loseDatabase();
    for (const name of filmsIn('clips')) {
      utimesSync(join(gym.folder, 'clips', name), new Date(), new Date());
    }
    expect((await tick(at(0))).strays).toEqual({ strays: 3, films: 3, isEmpty: true });
  });

  it('comes back whole from its backup', async () => {
    const [before] = await backupNames();
    await loseDatabase();
    await restore(gym.folder, join(gym.folder, 'backups'), before!, () => gym.db.destroy());
    gym = { ...gym, db: await openDatabase(gym.folder) };
    expect(await allStudents(gym.db)).toHaveLength(1);
    expect((await tick(at(0))).strays).toBeNull();
  });

  it('is not taken for an empty one when a clip has been added meanwhile', async () => {
    await loseDatabase();
    who = await student(gym);
    await addFilms(['cross-all-at-once.mp4']);
    const { strays } = await tick(at(0.1));
    expect(strays).toEqual({ strays: 3, films: 4, isEmpty: false });
    expect(filmsIn('clips')).toHaveLength(4);
  });
});

describe('a film that no clip names', () => {
  const NAMES = Array.from({ length: 40 }, (_, i) => (0xa0 + i).toString(16));

  /** Forty clips in the list, whose films are of no matter here. */
  async function manyClips(): Promise<void> {
    const [id] = await addFilms(['cross-clean.mp4']);
    const row = await gym.db
      .selectFrom('clip')
      .selectAll()
      .where('id', '=', id!)
      .executeTakeFirstOrThrow();
    for (const [i, letters] of NAMES.entries()) {
      const sha256 = letters.repeat(32);
      await gym.db
        .insertInto('clip')
        .values({ ...row, id: `clip-${i}`, sha256 })

        .execute();
      mkdirSync(join(gym.folder, 'clips', letters), { recursive: true });
      writeFileSync(join(gym.folder, 'clips', letters, `${sha256}.bin`), 'a film');
    }
  }

  it('is put aside for thirty days when it is one of many, and then goes', async () => {
    await manyClips();
    stray('9');
    expect((await tick(at(0))).strays).toBeNull();
    const aside = () => filmsAside(gym.folder);
    expect(await aside()).toHaveLength(1);
    for (let day = 1; day <= 30; day++) await tick(at(day));
    expect(await aside()).toHaveLength(1);
    await tick(at(31));
    expect(await aside()).toEqual([]);
  });

  it('stays while it is young: its clip may be on its way', async () => {
    await manyClips();
    stray('9', 0.5);
    expect((await tick(at(0))).strays).toBeNull();
    expect(await filmsAside(gym.folder)).toEqual([]);
  });

  it('is asked about when it is more than a few per cent', async () => {
    await manyClips();
    stray('9');
    stray('8');
    expect((await tick(at(0))).strays).toMatchObject({ strays: 2, isEmpty: false });
    expect(await filmsAside(gym.folder)).toEqual([]);
  });

  it('comes back by itself when a clip names it again', async () => {
    await manyClips();
    stray('9');
    await tick(at(0));
    await gym.db
      .updateTable('clip')
      .set({ sha256: '9'.repeat(64) })
      .where('id', '=', 'clip-0')
      .execute();
    await tick(at(0.1));
    expect(filmsIn('clips')).toContain(join('99', `${'9'.repeat(64)}.bin`));
  });
});

describe('a film that is missing', () => {
  it('is taken back from the backups', async () => {
    await addFilms();
    await tick(at(0));
    rmSync(join(gym.folder, 'clips'), { recursive: true });
    await tick(at(0.1));
    expect(filmsIn('clips')).toHaveLength(3);
  });

  it('is replaced by the same file added again', async () => {
    const [id] = await addFilms(['cross-clean.mp4']);
    rmSync(join(gym.folder, 'clips'), { recursive: true });
    const again = await addClip(gym.db, gym.files, newClip(who, film('cross-clean.mp4')));
    expect(again).toEqual({ id, isKnown: true });
    const { sha256, bytes } = (await clipById(gym.db, id!))!;
    expect(await gym.files.size(sha256)).toBe(bytes);
  });
});

describe('a row whose hash is none', () => {
  it('reaches no file outside of the films, and takes no screen down', async () => {
    const [id] = await addFilms(['cross-clean.mp4']);
    const outside = join(gym.folder, 'precious.bin');
    writeFileSync(outside, 'mine');
    await gym.db
      .updateTable('clip')
      .set({ sha256: '../../precious' })
      .where('id', '=', id!)
      .execute();
    aged();
    expect((await tick(at(0))).strays).toMatchObject({ strays: 1 });
    await checkFilms(gym, at(0));
    expect(await filmTroubles(gym)).toMatchObject([{ clipId: id, trouble: 'missing' }]);
    await forget(gym.folder, ['../../precious']);
    expect(existsSync(outside)).toBe(true);
  });
});

describe('the films read once a day', () => {
  it('are found as they were, missing, or altered, until they are added again', async () => {
    const [whole, altered, missing] = await addFilms();
    const pathOf = async (id: string) =>
      gym.files.shelf.pathOf((await clipById(gym.db, id))!.sha256)!;
    const bytes = film('cross-jammed.mp4');
    bytes[bytes.length >> 1]! ^= 1;
    writeFileSync(await pathOf(altered!), bytes);
    rmSync(await pathOf(missing!));
    const said = async () =>
      (await filmTroubles(gym)).map(({ clipId, trouble }) => [clipId, trouble]).sort();
    expect(await said()).toEqual([[missing, 'missing']]);
    await checkFilms(gym, at(0));
    expect(await said()).toEqual(
      [
        [altered, 'altered'],
        [missing, 'missing'],
      ].sort(),
    );
    await addFilms();
    expect(await said()).toEqual([]);
    await checkFilms(gym, at(0));
    expect(await said()).toEqual([]);
    expect(await clipById(gym.db, whole!)).not.toBeNull();
  });
});

describe('a clock that is wrong', () => {
  let clips: string[];
  beforeEach(async () => {
    clips = await addFilms();
    const guest = await student(gym, { consent: null });
    const consent = { givenBy: 'student', name: 'S', givenOn: '2026-01-02' } as const;
    await recordConsent(gym.db, guest, { ...consent, expiresOn: dayIn(at(40)) });
    await addClip(gym.db, gym.files, newClip(guest, film('cross-all-at-once.mp4')));
    await setTrashed(gym.db, 'clip', clips[0]!, true);
    for (let day = 0; day < KEPT; day++) {
      await backUp(gym.folder, join(gym.folder, 'backups'), at(day - KEPT), {
        isRotated: false,
      });
    }
    await tick(at(0));
  });

  it('400 days ahead takes no film, no backup and nothing that was put away, and says what waits', async () => {
    const names = await backupNames();
    const { clock, waits } = await tick(at(400));
    expect(clock).toMatchObject({ isBelieved: false });
    expect(waits).toMatchObject({ films: 1, putAway: 1 });
    expect(filmsIn('clips')).toHaveLength(4);
    expect(filmsIn('backups/clips')).toHaveLength(4);
    for (const name of names) expect(await backupNames()).toContain(name);
    expect(await gym.db.selectFrom('clip').select('id').execute()).toHaveLength(4);
    // Set right again, it is believed again, and nobody has to be asked.
    expect((await tick(at(0.1))).clock).toEqual({ isBelieved: true });
  });

  it('that stands on the date of a backup from the future still gets its daily backups', async () => {
    await tick(at(400));
    for (const day of [1, 2]) {
      await tick(at(day));
      const of = at(day).toISOString().slice(0, 10);
      expect((await backupNames()).some((name) => name.startsWith(of))).toBe(true);
    }
  });

  it('behind the newest row is not believed, until the date is confirmed', async () => {
    const { clock } = await tick(at(-3));
    expect(clock.isBelieved).toBe(false);
    await confirmClock(gym.db, gym.folder, at(-3));
    expect((await tick(at(-2.9))).clock.isBelieved).toBe(true);
  });

  it('behind the rows is noticed without the file that keeps the last time', async () => {
    rmSync(join(gym.folder, 'last-seen.json'));
    expect((await tick(at(-0.5))).clock.isBelieved).toBe(false);
    expect((await tick(at(3))).clock.isBelieved).toBe(false);
    expect((await tick(at(1))).clock.isBelieved).toBe(true);
  });

  it('confirmed, what was due goes at once', async () => {
    await tick(at(41));
    expect(filmsIn('clips')).toHaveLength(4);
    await confirmClock(gym.db, gym.folder, at(41));
    await tick(at(41));
    expect(filmsIn('clips')).toHaveLength(2);
    // Nor do they stay in the backups: one has no consent any more, one is gone for good.
    expect(filmsIn('backups/clips')).toHaveLength(2);
  });

  it('asks nothing after a holiday when nothing waits', async () => {
    const { clock, waits } = await tick(at(20));
    expect([clock.isBelieved, waits]).toEqual([false, null]);
  });
});
