/** A gym as a file: out, in, damaged on the way, and into a gym that is there. */
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { beforeAll, describe, expect, it } from 'vitest';
import { purgeFilm } from '@/data/clip/clipEnds';
import { activeCues } from '@/data/finding/findings';
import { isDeeper } from '@/data/transfer/flatJson';
import { importGym, verifyGym } from '@/data/transfer/gymImport';
import { rowsOf, TABLES, toLine } from '@/data/transfer/gymTables';
import { strikesNow } from '@/data/finding/measured';
import { allStudents, studentById } from '@/data/student/students';
import { setTrashed } from '@/data/maintenance/trash';
import { addNote } from '@/data/progress/ledger';
import { today } from '@/data/database/today';
import { emptyGym, fullGym, markedClip, saved, student, type TestGym } from './support';

let full: TestGym;
let file: string;
let who: string;

beforeAll(async () => {
  ({ gym: full, who } = await fullGym());
  file = await saved(full);
});

const contents = async ({ db }: TestGym) =>
  Object.fromEntries(
    await Promise.all(
      TABLES.map(async (table) => [table, (await rowsOf(db, table)).map(toLine).sort()] as const),
    ),
  );
const verify = (gym: TestGym, path: string) => verifyGym(path, join(gym.folder, 'incoming'));
const into = (gym: TestGym, path = file) =>
  importGym(gym.files, path, join(gym.folder, 'incoming'));

describe('a gym’s file', () => {
  it('is checked without anything being taken over', async () => {
    const gym = await emptyGym();
    expect(await verify(gym, file)).toMatchObject({ students: 1, clips: 1, strikes: 1 });
    expect(await allStudents(gym.db)).toEqual([]);
  });

  it('into an empty gym gives back every row and every film, byte for byte', async () => {
    const gym = await emptyGym();
    const outcome = await into(gym);
    expect(outcome.added).toMatchObject({ students: 1, clips: 1 });
    const [there, here] = [await contents(full), await contents(gym)];
    // The gym itself keeps its own id here; detections and history are numbered anew.
    const own = (rows: Record<string, string[]>) =>
      JSON.stringify(rows).replaceAll(/\\"gym_id\\":\\"[^"]*\\"/g, '');
    for (const table of TABLES) {
      // What was measured is measured again here.
      if (table === 'gym' || table === 'measured') continue;
      expect(own({ [table]: here[table]! })).toBe(own({ [table]: there[table]! }));
    }
    const [clip] = await rowsOf(gym.db, 'clip');
    const sha256 = String(clip!.sha256);
    const film = readFileSync(gym.files.shelf.pathOf(sha256)!);
    expect(createHash('sha256').update(film).digest('hex')).toBe(sha256);
  });

  it('carries the numbers of a film that is gone, and not the film', async () => {
    const { gym: from, who: id } = await fullGym();
    const [clip] = await rowsOf(from.db, 'clip');
    await purgeFilm(from.db, from.files, String(clip!.id));
    const gym = await emptyGym();
    await into(gym, await saved(from));
    const [before, after] = [
      (await strikesNow(from.db, id)).strikes,
      (await strikesNow(gym.db, id)).strikes,
    ];
    expect(after).toEqual(before);
    expect(after).toHaveLength(1);
    expect(await gym.files.size(String(clip!.sha256))).toBeNull();
  });

  it('taken over twice adds nothing the second time', async () => {
    const gym = await emptyGym();
    await into(gym);
    const before = await contents(gym);
    const outcome = await into(gym);
    expect(outcome).toMatchObject({
      added: { students: 0, clips: 0, rows: 0 },
      present: { students: 1, clips: 1 },
    });
    expect(await contents(gym)).toEqual(before);
  });

  it('into a gym with others stands beside them, and changes none of them', async () => {
    const gym = await emptyGym();
    const other = await student(gym);
    const mine = await studentById(gym.db, other);
    await into(gym);
    expect((await allStudents(gym.db)).map(({ id }) => id).sort()).toEqual([who, other].sort());
    expect(await studentById(gym.db, other)).toEqual(mine);
    expect(await activeCues(gym.db, who)).toHaveLength(1);
  });

  it('says of each film what the film is, whatever the file says of it', async () => {
    const gym = await emptyGym();
    const parts = unzipSync(readFileSync(file));
    const said = JSON.parse(strFromU8(parts['manifest.json']!)) as {
      files: Record<string, { bytes: number; sha256: string }>;
    };
    const clips = strFromU8(parts['tables/clip.jsonl']!).trim().split('\n');
    const rows = clips
      .map((line) => JSON.stringify({ ...JSON.parse(line), mime_type: 'text/html', width: 7 }))
      .join('\n');
    const bytes = strToU8(rows);
    parts['tables/clip.jsonl'] = bytes;
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    said.files['tables/clip.jsonl'] = { bytes: bytes.length, sha256 };
    parts['manifest.json'] = strToU8(JSON.stringify(said));
    const path = join(full.folder, 'lying.zip');
    writeFileSync(path, zipSync(parts, { level: 0 }));
    await into(gym, path);
    const [clip] = await rowsOf(gym.db, 'clip');
    expect(clip).toMatchObject({ width: 1280, height: 720, codec: 'avc' });
    expect(clip!.mime_type).toMatch(/^video\/mp4/);
  });

  it('of an earlier Sinew is brought up to date on its way in', async () => {
    const parts = unzipSync(readFileSync(file));
    const said = JSON.parse(strFromU8(parts['manifest.json']!)) as {
      schema: string;
      files: Record<string, { bytes: number; sha256: string }>;
    };
    said.schema = '0005-work';
    for (const [table, column] of [
      ['student', 'born_on'],
      ['consent', 'films_until'],
      ['student', 'girth_hips_m'],
      ['student', 'girth_ribs_m'],
      ['student', 'band_seam'],
      ['student', 'band_kind'],
      ['clip', 'drawings'],
      ['clip', 'note'],
      ['clip', 'azimuth'],
      ['strike', 'note'],
      ['strike', 'looks'],
      ['finding', 'decided_by'],
      ['finding', 'decided_at'],
    ] as const) {
      const name = `tables/${table}.jsonl`;
      const rows = strFromU8(parts[name]!).replaceAll(new RegExp(`,"${column}":[^,}]*`, 'g'), '');
      const bytes = strToU8(rows);
      parts[name] = bytes;
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      said.files[name] = { bytes: bytes.length, sha256 };
    }
    parts['manifest.json'] = strToU8(JSON.stringify(said));
    const path = join(full.folder, 'earlier.zip');
    writeFileSync(path, zipSync(parts, { level: 0 }));
    const gym = await emptyGym();
    expect((await into(gym, path)).added).toMatchObject({ students: 1, clips: 1 });
    expect(await studentById(gym.db, who)).toMatchObject({ bornOn: null, name: 'Somebody' });
    expect(await activeCues(gym.db, who)).toHaveLength(1);
  });

  it('names the films that are missing where it was made', async () => {
    const { gym: from } = await fullGym();
    const [clip] = await rowsOf(from.db, 'clip');
    await from.files.remove(String(clip!.sha256));
    const parts = unzipSync(readFileSync(await saved(from)));
    const { missing } = JSON.parse(strFromU8(parts['manifest.json']!)) as { missing: string[] };
    expect(missing).toEqual([clip!.sha256]);
  });

  it('leaves what was changed here as it is here', async () => {
    const gym = await emptyGym();
    await into(gym);
    await gym.db.updateTable('student').set({ name: 'Renamed' }).execute();
    await setTrashed(gym.db, 'clip', String((await rowsOf(gym.db, 'clip'))[0]!.id), true);
    await into(gym);
    expect((await allStudents(gym.db))[0]!.name).toBe('Renamed');
    expect((await rowsOf(gym.db, 'clip'))[0]!.deleted_at).not.toBeNull();
  });
});

describe('a part of a gym', () => {
  let gym: TestGym;
  let [own, other] = ['', ''];
  beforeAll(async () => {
    ({ gym, who: own } = await fullGym());
    other = await student(gym);
    await gym.db
      .updateTable('student')
      .set({ name: 'Ulla Brink', injuries: 'right wrist' })
      .where('id', '=', other)
      .execute();
    await markedClip(gym, other, 'cross-in-order.mp4');
    await addNote(gym.db, { studentId: other, technique: null, day: today(), text: 'Ulla limps' });
    await gym.db
      .updateTable('gym')
      .set({ settings: '{"grades":["blue"],"from":{},"sessions":[]}' })
      .execute();
  });

  /** Everything in a file, as text. */
  const textIn = (path: string) =>
    Object.entries(unzipSync(readFileSync(path)))
      .filter(([name]) => name.startsWith('tables/'))
      .map(([, bytes]) => strFromU8(bytes))
      .join('');
  const filmsIn = (path: string) =>
    Object.keys(unzipSync(readFileSync(path))).filter((name) => name.startsWith('clips/'));

  it('is one student with all that is theirs, and nothing of anybody else or of the gym', async () => {
    const path = await saved(gym, { kind: 'student', id: own });
    expect(textIn(path)).not.toMatch(/Ulla|wrist|blue/);
    expect(filmsIn(path)).toHaveLength(1);
    const there = await emptyGym();
    expect(await into(there, path)).toMatchObject({ added: { students: 1, clips: 1 } });
    const [mine, all] = [await contents(there), await contents(full)];
    for (const table of TABLES) {
      // The other full gym has the same rows, made anew.
      if (['gym', 'measured', 'plan_item', 'camera_setup', 'library_change'].includes(table))
        continue;
      expect(mine[table], table).toHaveLength(all[table]!.length);
    }
    expect((await studentById(there.db, own))!.consent).not.toBeNull();
  });

  it('is what nobody has put away, and work outlives a cue that stays behind', async () => {
    await setTrashed(gym.db, 'student', other, true);
    const path = await saved(gym, { kind: 'not-put-away' });
    expect(textIn(path)).not.toMatch(/Ulla|wrist/);
    expect(textIn(path)).toMatch(/blue/);
    expect(filmsIn(path)).toHaveLength(1);
    const { id: clip } = await gym.db
      .selectFrom('clip')
      .select('id')
      .where('student_id', '=', own)
      .executeTakeFirstOrThrow();
    await setTrashed(gym.db, 'clip', clip, true);
    const without = await saved(gym, { kind: 'not-put-away' });
    expect(filmsIn(without)).toEqual([]);
    const there = await emptyGym();
    expect(await into(there, without)).toMatchObject({ added: { students: 1, clips: 0 } });
    const work = await rowsOf(there.db, 'prescription');
    expect(work.length).toBeGreaterThan(0);
    expect(work.every(({ cue_id }) => cue_id === null)).toBe(true);
    // Of all of it everything is there still.
    expect(textIn(await saved(gym))).toMatch(/Ulla/);
  });
});

describe('a file that is not what it says', () => {
  type Parts = Record<string, Uint8Array>;
  const changed = (change: (parts: Parts) => void): string => {
    const parts = unzipSync(readFileSync(file));
    change(parts);
    const path = join(full.folder, `changed-${Math.round(performance.now() * 1000)}.zip`);
    writeFileSync(path, zipSync(parts, { level: 0 }));
    return path;
  };
  const manifest = (parts: Parts) =>
    JSON.parse(strFromU8(parts['manifest.json']!)) as {
      schema: string;
      files: Record<string, { bytes: number; sha256: string }>;
      counts: Record<string, number>;
    };
  /** Change a table and let the manifest agree. */
  const forged = (table: string, text: (old: string) => string) =>
    changed((parts) => {
      const name = `tables/${table}.jsonl`;
      const bytes = strToU8(text(strFromU8(parts[name]!)));
      const said = manifest(parts);
      said.files[name] = {
        bytes: bytes.length,
        sha256: createHash('sha256').update(bytes).digest('hex'),
      };
      parts[name] = bytes;
      parts['manifest.json'] = strToU8(JSON.stringify(said));
    });
  const film = (parts: Parts) => Object.keys(parts).find((name) => name.startsWith('clips/'))!;

  const CASES: readonly (readonly [string, () => string, RegExp])[] = [
    ['no zip', () => join(full.folder, 'sinew.db'), /not a gym’s file/],
    [
      'cut short',
      () => {
        const path = join(full.folder, 'short.zip');
        const bytes = readFileSync(file);
        writeFileSync(path, bytes.subarray(0, bytes.length / 2));
        return path;
      },
      /not a gym’s file/,
    ],
    [
      'a film with one bit turned',
      () =>
        changed((parts) => {
          parts[film(parts)]![5000]! ^= 1;
        }),
      /damaged or changed/,
    ],
    [
      'a row changed',
      () =>
        changed((parts) => {
          const name = 'tables/student.jsonl';
          parts[name] = strToU8(strFromU8(parts[name]!).replace('Somebody', 'Somebodx'));
        }),
      /student\.jsonl is not what the file says/,
    ],
    [
      'a film missing',
      () =>
        changed((parts) => {
          delete parts[film(parts)];
        }),
      /lacks clips/,
    ],
    [
      'something more in it',
      () =>
        changed((parts) => {
          parts['../../evil.sh'] = strToU8('x');
        }),
      /not a gym’s file|damaged|knows nothing/,
    ],
    [
      'made by a newer Sinew',
      () =>
        changed((parts) => {
          const said = manifest(parts);
          said.schema = '0099-later';
          parts['manifest.json'] = strToU8(JSON.stringify(said));
        }),
      /newer Sinew/,
    ],
    [
      'a page with a script in the place of a film',
      () =>
        changed((parts) => {
          const page = strToU8('<!doctype html><script>alert(1)</script>'.padEnd(400));
          const said = manifest(parts);
          const name = Object.keys(said.files).find((one) => one.startsWith('clips/'))!;
          const sha256 = createHash('sha256').update(page).digest('hex');
          const old = said.files[name]!.sha256;
          delete parts[name];
          delete said.files[name];
          parts[`clips/${sha256}.bin`] = page;
          said.files[`clips/${sha256}.bin`] = { bytes: page.length, sha256 };
          const rows = strFromU8(parts['tables/clip.jsonl']!).replace(old, sha256);
          const table = strToU8(rows.replace('video/mp4', 'text/html'));
          parts['tables/clip.jsonl'] = table;
          said.files['tables/clip.jsonl'] = {
            bytes: table.length,
            sha256: createHash('sha256').update(table).digest('hex'),
          };
          parts['manifest.json'] = strToU8(JSON.stringify(said));
        }),
      /no film that Sinew can use/,
    ],
    ['a column too many', () => forged('note', (old) => old.replace('{', '{"more":1,')), /note/],
    [
      'a number for a name',
      () => forged('student', (old) => old.replace('"name":"Somebody"', '"name":7')),
      /student\.jsonl, line 1: “name” is missing, or of another kind\./,
    ],
    ['no JSON', () => forged('note', (old) => `x${old}`), /no JSON/],
    [
      'a clip of a student who is not in it',
      () => forged('clip', (old) => old.replace(who, 'nobody')),
      /clip\.jsonl, line 1 does not fit the rows before it/,
    ],
    [
      'a rule of the database broken',
      () => forged('student', (old) => old.replace('"stance":"orthodox"', '"stance":"crab"')),
      /student\.jsonl, line 1 does not fit/,
    ],
    ['a row twice', () => forged('note', (old) => old + old), /note\.jsonl, line 2 does not fit/],
    [
      'a path for a film',
      () => forged('clip', (old) => old.replace(/"sha256":"[^"]*"/, '"sha256":"../../etc/passwd"')),
      /row 1: “sha256” is no name of a film\./,
    ],
    [
      'a clip whose film is not in it',
      () =>
        forged('clip', (old) => old.replace(/"sha256":"[^"]*"/, `"sha256":"${'0'.repeat(64)}"`)),
      /row 1: its film is not in the file\./,
    ],
    ...(
      [
        ['gym', 'library', 'holds no library'],
        ['gym', 'settings', 'holds no settings of a gym'],
        ['student', 'school', 'holds no choices of school'],
        ['clip', 'purpose', 'holds no purpose'],
        ['clip', 'scale', 'holds no scale'],
        ['finding', 'judged_by', 'holds no readings that judged it'],
      ] as const
    ).map(
      ([table, column, says]) =>
        [
          `garbage for the ${column} of a ${table}`,
          () => forged(table, (old) => withCell(old, column, '{"grades":7,"x":[1]}')),
          new RegExp(`row 1: “${column}” ${says}\\.`),
        ] as const,
    ),
    [
      'a day that is none',
      () => forged('note', (old) => withCell(old, 'day', '2026-02-30')),
      /row 1: Write the day as year-month-day\./,
    ],
    [
      'an instant that is none',
      () => forged('student', (old) => withCell(old, 'archived_at', 'yesterday')),
      /row 1: “archived_at” is no instant of time\./,
    ],
    [
      'a strike that nobody knows',
      () => forged('strike', (old) => withCell(old, 'technique', 'headbutt')),
      /row 1: “technique” is none of the choices\./,
    ],
    [
      'times of frames that run backwards',
      () =>
        forged('clip', (old) =>
          withCell(old, 'frame_times', { base64: 'AAAAAAAA8D8AAAAAAAAAAA==' }),
        ),
      /row 1: “frame_times” holds no times of frames\./,
    ],
  ];
  /** A cell of every row another. */
  const withCell = (rows: string, column: string, cell: unknown) =>
    rows
      .trim()
      .split('\n')
      .map((line) => JSON.stringify({ ...(JSON.parse(line) as object), [column]: cell }))
      .join('\n');

  it.each(CASES)('%s: is refused in words, and nothing is there', async (_, make, says) => {
    const gym = await emptyGym();
    await expect(into(gym, make())).rejects.toThrow(says);
    await expect(verify(gym, make())).rejects.toThrow(/Nothing was taken over/);
    expect(await contents(gym)).toMatchObject({ student: [], clip: [], strike: [] });
    const left = join(gym.folder, 'incoming');
    expect(existsSync(left) ? readdirSync(left) : []).toEqual([]);
  });

  describe('made to swell', () => {
    const STUDENT = 'tables/student.jsonl';
    /** A table put in the place of the students’, packed as tightly as it goes. */
    const bomb = (
      table: Uint8Array<ArrayBuffer>,
      said: (bytes: number) => number = (bytes) => bytes,
    ) => {
      const parts = unzipSync(readFileSync(file));
      const all = manifest(parts);
      const sha256 = createHash('sha256').update(table).digest('hex');
      all.files[STUDENT] = { bytes: said(table.length), sha256 };
      parts['manifest.json'] = strToU8(JSON.stringify(all));
      parts[STUDENT] = table;
      const path = join(full.folder, `bomb-${table.length}.zip`);
      writeFileSync(path, zipSync(parts, { level: 9 }));
      return path;
    };
    const refused = async (path: string, says: RegExp) => {
      const gym = await emptyGym();
      const before = process.memoryUsage().rss;
      await expect(into(gym, path)).rejects.toThrow(says);
      expect(process.memoryUsage().rss - before).toBeLessThan(400e6);
      expect(readdirSync(join(gym.folder, 'incoming'))).toEqual([]);
    };

    it('is refused before anything is taken out of it', async () => {
      const path = bomb(new Uint8Array(300e6).fill(0x20));
      expect(readFileSync(path).length).toBeLessThan(5e6);
      await refused(path, /student\.jsonl swells to 300 MB from next to nothing/);
    });

    it('and says that it is small, is refused', async () => {
      await refused(
        bomb(new Uint8Array(30e6).fill(0x20), () => 400),
        /not what the file says it is/,
      );
    });

    it('by brackets within brackets is refused before it is parsed', async () => {
      // Noise before them, so that the file does not swell too much.
      const noise = randomBytes(900_000).toString('base64');
      const row = `{"id":"${noise}","name":${'['.repeat(10e6)}`;
      await refused(bomb(strToU8(row)), /line 1 is nested deeper than Sinew writes it/);
    });
  });

  it('of more than the disk has room for is refused with what it needs', async () => {
    process.env.SINEW_KEEP_FREE_MB = '1000000000';
    try {
      const gym = await emptyGym();
      await expect(into(gym)).rejects.toThrow(
        /needs \d+ MB while it is taken over, and 0 MB are free/,
      );
    } finally {
      delete process.env.SINEW_KEEP_FREE_MB;
    }
  });
});

describe('brackets within brackets', () => {
  it.each([
    ['{"a":1}', 1, false],
    ['{"a":{"base64":""}}', 1, true],
    ['{"a":{"base64":""}}', 2, false],
    ['{"a":"[[[[{{{{"}', 1, false],
    ['{"a":"\\"[[[["}', 1, false],
    ['{"a":"\\\\","b":[[]]}', 2, true],
    ['[[[', 2, true],
    ['"never ended [[[', 0, false],
  ])('%s is deeper than %i: %s', (text, deepest, answer) => {
    expect(isDeeper(text, deepest)).toBe(answer);
  });

  it('are counted as a parser counts them', () => {
    const depth = (value: unknown): number =>
      typeof value === 'object' && value !== null
        ? 1 + Math.max(0, ...Object.values(value).map(depth))
        : 0;
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 5 }), (value) => {
        const text = JSON.stringify(value);
        const own = depth(JSON.parse(text));
        expect(isDeeper(text, own)).toBe(false);
        if (own > 0) expect(isDeeper(text, own - 1)).toBe(true);
      }),
    );
  });
});
