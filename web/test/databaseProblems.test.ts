/** A database that cannot be opened, or is of another Sinew: what is said, and the ways back. */
import { editsOf } from '../src/data/gym/library';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Kysely, Migrator, sql, SqliteDialect } from 'kysely';
import { beforeEach, describe, expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { GET, POST } from '@/app/recovery/route';
import { backUp, backups, restore } from '@/data/maintenance/backups';
import { closeDatabase, database, openDatabase } from '@/data/database/database';
import type { DatabaseProblem } from '@/data/database/databaseProblem';
import { keepPrivate } from '@/data/database/keepPrivate';
import { MIGRATIONS } from '@/data/database/migrations/index';
import { allStudents, studentById } from '@/data/student/students';
import { fullGym, student, emptyGym, type TestGym } from './support';

let gym: TestGym;
let who: string;
const file = () => join(gym.folder, 'sinew.db');

const kindOf = async (folder: string) =>
  openDatabase(folder).then(
    async (db) => {
      await db.destroy();
      return 'sound';
    },
    (error: unknown) => (error as DatabaseProblem).kind,
  );

describe('a database', () => {
  beforeEach(async () => {
    ({ gym, who } = await fullGym());
    await backUp(gym.folder, join(gym.folder, 'backups'), new Date(), {
      isRotated: true,
    });
    await gym.db.destroy();
  });

  it.each([
    ['overwritten with text', () => Buffer.from('no database\n'.repeat(900))],
    ['cut in half', (whole: Buffer) => whole.subarray(0, whole.length >> 1)],
    [
      'with a hole in it',
      (whole: Buffer) => Buffer.from(whole).fill(0, whole.length >> 2, whole.length >> 1),
    ],
  ])('%s is known as damaged, left as it is, and a backup takes its place', async (_, damage) => {
    const broken = damage(readFileSync(file()));
    writeFileSync(file(), broken);
    expect(await kindOf(gym.folder)).toBe('damaged');
    expect(readFileSync(file()).equals(broken)).toBe(true);
    const [newest] = await backups(join(gym.folder, 'backups'));
    const close = () => Promise.resolve();
    await restore(gym.folder, join(gym.folder, 'backups'), newest!.name, close, false);
    const db = await openDatabase(gym.folder);
    expect(await studentById(db, who)).not.toBeNull();
    await db.destroy();
    // The damaged one is put aside, for somebody who can read more of it.
    const aside = readdirSync(join(gym.folder, 'set-aside'), { recursive: true }).map(String);
    expect(aside.some((name) => name.endsWith('sinew.db'))).toBe(true);
  });

  it('with a row that should not be there opens all the same', async () => {
    const sqlite = new Database(file());
    sqlite.pragma('ignore_check_constraints = on');
    sqlite.prepare("update student set stance = 'sideways'").run();
    sqlite.close();
    expect(await kindOf(gym.folder)).toBe('sound');
    const db = await openDatabase(gym.folder);
    const to = join(gym.folder, 'backups');
    const { name } = await backUp(gym.folder, to, new Date(), { isRotated: false });
    await restore(gym.folder, to, name, () => db.destroy());
    expect(await kindOf(gym.folder)).toBe('sound');
  });

  it('of a newer Sinew is not touched', async () => {
    const sqlite = new Database(file());
    sqlite.prepare("insert into kysely_migration values ('0099-later', '2027')").run();
    sqlite.close();
    const before = readFileSync(file());
    expect(await kindOf(gym.folder)).toBe('newer');
    expect(readFileSync(file()).equals(before)).toBe(true);
  });

  it('that is missing is a new one', async () => {
    expect(await kindOf(scratchFolder('new'))).toBe('sound');
  });
});

describe('the page that needs no database', () => {
  const ask = (form?: Record<string, string>, headers: Record<string, string> = {}) =>
    new Request('http://127.0.0.1:4000/recovery', {
      method: form ? 'POST' : 'GET',
      headers: { host: '127.0.0.1:4000', ...headers },
      ...(form && { body: new URLSearchParams(form) }),
    });

  beforeEach(async () => {
    ({ gym, who } = await fullGym());
    await backUp(gym.folder, join(gym.folder, 'backups'), new Date(), {
      isRotated: true,
    });
    await gym.db.destroy();
    await closeDatabase();
    process.env.SINEW_DATA = gym.folder;
    writeFileSync(file(), 'no database at all, whatever it is called'.repeat(200));
  });

  it('says what is wrong, what is safe, and lists the backups', async () => {
    const answer = await GET();
    expect(answer.status).toBe(503);
    const html = await answer.text();
    expect(html).toContain('The gym’s database is damaged.');
    expect(html).toContain(`<code>${gym.folder}/clips</code>`);
    expect(html).toContain('Go back to it');
    expect(html).not.toContain('<script');
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
  });

  it('goes back to a backup, and every screen is there again', async () => {
    const { name } = (await backups(join(gym.folder, 'backups')))[0]!;
    const answer = await POST(ask({ backup: name }));
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/']);
    expect(await allStudents(await database())).toHaveLength(1);
    await closeDatabase();
  });

  it('refuses another site, a backup that is not there, and a sound database', async () => {
    const foreign = await POST(ask({}, { origin: 'http://elsewhere.invalid' }));
    expect(foreign.status).toBe(403);
    const gone = await POST(ask({ backup: '../sinew.db' }));
    expect(gone.status).toBe(422);
    expect(await gone.text()).toContain('Nothing was changed');
    const { name } = (await backups(join(gym.folder, 'backups')))[0]!;
    await POST(ask({ backup: name }));
    expect((await POST(ask({ backup: name }))).status).toBe(409);
    expect((await GET()).status).toBe(200);
    await closeDatabase();
  });

  it('finds out when an open database has been damaged meanwhile', async () => {
    const { name } = (await backups(join(gym.folder, 'backups')))[0]!;
    await POST(ask({ backup: name }));
    expect((await GET()).status).toBe(200);
    const db = await database();
    await sql`pragma wal_checkpoint(truncate)`.execute(db);
    const size = statSync(file()).size;
    writeFileSync(file(), Buffer.alloc(size, 'x'));
    const answer = await GET();
    expect(answer.status).toBe(503);
    expect(await answer.text()).toContain('is damaged');
    await closeDatabase();
  });

  it('begins anew where there is no backup, and keeps what was there', async () => {
    expect((await POST(ask({}))).status).toBe(303);
    expect(await allStudents(await database())).toEqual([]);
    expect(existsSync(join(gym.folder, 'set-aside'))).toBe(true);
    await closeDatabase();
  });
});

describe('a gym from before', () => {
  const names = Object.keys(MIGRATIONS).sort();
  const isBefore = (one: string, other: string) => names.indexOf(one) < names.indexOf(other);

  /** Tables that have had another name. */
  const NOW: Readonly<Record<string, string>> = { sighting: 'detection', remark: 'repeat_marking' };

  /** The same gym, as an earlier Sinew kept it: tables of then, filled with what they have in common. */
  async function asOf(schema: string): Promise<string> {
    const { gym: from } = await fullGym();
    const folder = scratchFolder('before');
    const sqlite = new Database(join(folder, 'sinew.db'));
    const db = new Kysely<never>({ dialect: new SqliteDialect({ database: sqlite }) });
    const migrator = new Migrator({
      db,
      provider: { getMigrations: async () => ({ ...MIGRATIONS }) },
    });
    const { error } = await migrator.migrateTo(schema);
    if (error) throw error;
    sqlite.prepare('attach ? as now').run(join(from.folder, 'sinew.db'));
    // The tables of an index are SQLite's own: they follow the words.
    const tables = sqlite
      .prepare(
        `select name from main.sqlite_master where type = 'table' and name not like 'kysely%'
          and name not like 'sqlite%' and name not like 'film_words%'`,
      )
      .all() as { name: string }[];
    sqlite.pragma('foreign_keys = off');
    for (const { name } of tables) {
      const today = isBefore(schema, '0007-field-terms') ? (NOW[name] ?? name) : name;
      const columns = (of: string, table: string) =>
        (sqlite.pragma(`${of}.table_info(${table})`) as { name: string }[]).map((one) => one.name);
      const present = columns('now', today);
      const common = columns('main', name)
        .filter((one) => present.includes(one))
        .map((one) => `"${one}"`);
      sqlite.exec(
        `insert into main."${name}" (${common.join()}) select ${common.join()} from now."${today}"`,
      );
    }
    await db.destroy();
    await from.db.destroy();
    return folder;
  }

  it.each(names.slice(0, -1))('at %s is brought up to date, after a backup', async (schema) => {
    const folder = await asOf(schema);
    const db = await openDatabase(folder);
    const [one] = await allStudents(db);
    expect(one).toMatchObject({ name: 'Somebody', isMinor: false });
    expect(one!.bornOn === null).toBe(isBefore(schema, '0006-birth-dates'));
    for (const table of ['clip', 'strike', 'mark', 'finding', 'cue'] as const) {
      expect(await db.selectFrom(table).selectAll().execute(), table).not.toEqual([]);
    }
    await db.destroy();
    const sqlite = new Database(join(folder, 'sinew.db'));
    expect(sqlite.pragma('integrity_check')).toEqual([{ integrity_check: 'ok' }]);
    expect(sqlite.pragma('foreign_key_check')).toEqual([]);
    sqlite.close();
    const [backup] = await backups(join(folder, 'backups'));
    const kept = new Database(join(folder, 'backups', backup!.name), { readonly: true });
    const last = kept.prepare('select max(name) as name from kysely_migration').get();
    expect(last).toEqual({ name: schema });
    kept.close();
    // And it can be gone back to.
    await restore(folder, join(folder, 'backups'), backup!.name, () => Promise.resolve());
    const again = await openDatabase(folder);
    expect(await allStudents(again)).toHaveLength(1);
    await again.destroy();
  });

  it('keeps its words under their new names', async () => {
    const folder = await asOf('0006-birth-dates');
    const before = new Database(join(folder, 'sinew.db'));
    const edits = {
      own: [],
      drills: {},
      ownDrills: [],
      school: { hookFoot: 'pivot' },
      leaks: {
        'all-at-once': { limits: { '0.0': 0.03, '1.2': -0.02, '7.7': 1 }, cue: 'Wait for it.' },
        'slow-home': { isOff: true },
      },
    };
    before.prepare('update gym set library = ?').run(JSON.stringify(edits));
    before.prepare('update strike set audit = ?').run('{"breath":"rides","face":"drags"}');
    before.prepare('update finding set judged_by = ?').run('[{"limit":{"isWitness":true}}]');
    before.close();
    const db = await openDatabase(folder);
    expect(await editsOf(db)).toEqual({
      own: [],
      drills: {},
      ownDrills: [],
      school: { hookFoot: 'pivot' },
      faults: {
        'all-at-once': {
          cue: 'Wait for it.',
          limits: { 'turned/lead.hipsTrunk': 0.03, 'uppercut/drop.height': -0.02 },
        },
        'slow-home': { isOff: true },
      },
    });
    const { audit } = await db.selectFrom('strike').select('audit').executeTakeFirstOrThrow();
    expect(audit).toBe('{"breath":"neutral","face":"drags"}');
    const found = await db.selectFrom('finding').select('judged_by').executeTakeFirstOrThrow();
    expect(found.judged_by).toBe('[{"limit":{"onlyClears":true}}]');
    await db.destroy();
  });

  it('is left as it was when there is no place for the backup', async () => {
    const folder = await asOf(names.at(-2)!);
    writeFileSync(join(folder, 'backups'), 'a file where the folder should be');
    expect(await kindOf(folder)).toBe('not brought up to date');
    const sqlite = new Database(join(folder, 'sinew.db'));
    const last = sqlite.prepare('select max(name) as name from kysely_migration').get();
    expect(last).toEqual({ name: names.at(-2) });
    sqlite.close();
  });
});

describe('what is kept', () => {
  it('is for its owner only, also what was there before', async () => {
    gym = await emptyGym();
    await student(gym);
    const open = join(gym.folder, 'clips', 'ab');
    mkdirSync(open, { recursive: true, mode: 0o755 });
    writeFileSync(join(open, 'film.bin'), 'x', { mode: 0o644 });
    const umask = process.umask();
    // Threads may not set it; the server does.
    try {
      await keepPrivate(gym.folder);
    } finally {
      process.umask(umask);
    }
    const mode = (path: string) => (statSync(path).mode & 0o777).toString(8);
    expect([mode(gym.folder), mode(open), mode(join(open, 'film.bin'))]).toEqual([
      '700',
      '700',
      '600',
    ]);
    expect(mode(file())).toBe('600');
  });
});
