/** Films on a shelf: the same promises of a folder of this machine and of a store that speaks S3. */
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PutObjectCommand } from '@aws-sdk/client-s3';
import { nanoid } from 'nanoid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { addClip, clipById } from '@/data/clip/clips';
import { destroyClip, purgeFilm } from '@/data/clip/clipEnds';
import { openDatabase } from '@/data/database/database';
import { ClipFiles } from '@/data/film/clipFiles';
import { shelfPlace, type FilmShelf } from '@/data/film/filmShelf';
import { FolderShelf } from '@/data/film/folderShelf';
import { s3Place } from '@/data/film/s3Place';
import { S3Shelf } from '@/data/film/s3Shelf';
import { keptFilms, putStraysAside } from '@/data/maintenance/sweep';
import { lookAfter, maintain } from '@/data/maintenance/maintain';
import { bringBack, filmsAside } from '@/data/maintenance/setAside';
import { importGym } from '@/data/transfer/gymImport';
import { film, newClip, saved, student, type TestGym } from '../support';
import { swift, type Swift } from '@sinew/demo/store/swift';

/** Larger than what is fetched at once. */
const bytes = randomBytes(5 * 1024 * 1024 + 17);
const sha256 = createHash('sha256').update(bytes).digest('hex');
const NONE = '0'.repeat(64);

const whole = async (shelf: FilmShelf, hash: string, from: number, to: number) =>
  Buffer.from(await new Response(await shelf.read(hash, from, to)).bytes());

function written(folder: string, data: Uint8Array): string {
  const path = join(folder, nanoid());
  writeFileSync(path, data);
  return path;
}

const listed = async (shelf: FilmShelf) => {
  const found: string[] = [];
  for await (const { sha256: hash } of shelf.list()) found.push(hash);
  return found;
};

let store: Swift;

beforeAll(async () => {
  store = await swift();
}, 90_000);

afterAll(() => store.stop());

/** A store of its own in the bucket. */
const inStore = (folder: string, prefix = `${nanoid()}/`) =>
  new S3Shelf({ ...store.place, prefix }, new FolderShelf(join(folder, 'clips')));

describe.each([
  ['a folder of this machine', (folder: string) => new FolderShelf(join(folder, 'clips'))],
  ['a store that speaks S3', inStore],
])('%s', (_, make: (folder: string) => FilmShelf) => {
  const folder = scratchFolder('shelf');

  it('keeps a film, gives it and any part of it, and is empty when it is removed', async () => {
    const shelf = make(folder);
    expect([await shelf.size(sha256), await listed(shelf)]).toEqual([null, []]);
    const path = written(folder, bytes);
    await shelf.put(path, sha256);
    expect(existsSync(path)).toBe(false);
    expect([await shelf.size(sha256), await listed(shelf)]).toEqual([bytes.length, [sha256]]);
    expect((await whole(shelf, sha256, 0, bytes.length - 1)).equals(bytes)).toBe(true);
    for (const [from, to] of [
      [0, 0],
      [1000, 1999],
      [2 * 1024 * 1024 - 1, 2 * 1024 * 1024],
      [bytes.length - 1, bytes.length - 1],
    ] as const) {
      const part = await whole(shelf, sha256, from, to);
      expect(part.equals(bytes.subarray(from, to + 1)), `${from}–${to}`).toBe(true);
    }
    // The same film again is one.
    await shelf.put(written(folder, bytes), sha256);
    expect(await listed(shelf)).toEqual([sha256]);
    await shelf.remove(sha256);
    await shelf.remove(sha256);
    expect([await shelf.size(sha256), await listed(shelf)]).toEqual([null, []]);
  });

  it('gives a film out as a file, and has it no longer', async () => {
    const shelf = make(folder);
    await shelf.put(written(folder, bytes), sha256);
    const out = join(folder, 'out.bin');
    await shelf.takeOut(sha256, out);
    expect(readFileSync(out).equals(bytes)).toBe(true);
    expect(await shelf.size(sha256)).toBeNull();
    await expect(shelf.takeOut(sha256, out)).rejects.toThrow();
  });

  it('knows nothing of what is no film, and says so of what is not there', async () => {
    const shelf = make(folder);
    expect(await shelf.size('../sinew.db')).toBeNull();
    expect(await shelf.size(NONE)).toBeNull();
    await expect(shelf.read(NONE, 0, 1)).rejects.toThrow(/no such f/);
  });

  it('is asked by many at once, of whom some never read on', async () => {
    const shelf = make(folder);
    await shelf.put(written(folder, bytes), sha256);
    const left = await Promise.all(
      Array.from({ length: 60 }, () => shelf.read(sha256, 0, bytes.length - 1)),
    );
    await Promise.all(left.map((stream) => stream.getReader().read()));
    expect((await whole(shelf, sha256, 5, 9)).equals(bytes.subarray(5, 10))).toBe(true);
  });
});

describe('a gym whose films are in the store', () => {
  async function gymInStore(prefix?: string): Promise<TestGym & { shelf: S3Shelf }> {
    const folder = scratchFolder('far');
    const shelf = inStore(folder, prefix);
    return { folder, shelf, db: await openDatabase(folder), files: new ClipFiles(folder, shelf) };
  }

  it('takes clips in and gives them up as ever; no film lies on the machine', async () => {
    const gym = await gymInStore();
    const { id } = await addClip(
      gym.db,
      gym.files,
      newClip(await student(gym), film('cross-clean.mp4')),
    );
    const clip = (await clipById(gym.db, id))!;
    expect(await gym.files.size(clip.sha256)).toBe(clip.bytes);
    expect(existsSync(join(gym.folder, 'clips'))).toBe(false);
    expect(readdirSync(join(gym.folder, 'incoming'))).toEqual([]);
    const shown = (await gym.files.shown(clip.sha256))!;
    expect(await new Response(await shown.read(4, 7)).text()).toBe('ftyp');
    const path = await gym.files.withFile(clip.sha256, async (at) => {
      expect(readFileSync(at).equals(film('cross-clean.mp4'))).toBe(true);
      return at;
    });
    expect(existsSync(path)).toBe(false);
    expect(await destroyClip(gym.db, gym.files, id)).toBe(clip.sha256);
    expect(await gym.files.size(clip.sha256)).toBeNull();
  });

  it('is handed on as a gym’s file to a machine that has its own disk, and back', async () => {
    const far = await gymInStore();
    await addClip(far.db, far.files, newClip(await student(far), film('cross-jammed.mp4')));
    const zip = await saved(far);
    const near = scratchFolder('near');
    const gym = { folder: near, db: await openDatabase(near), files: new ClipFiles(near) };
    await importGym(gym.files, zip, join(near, 'incoming'));
    const hash = createHash('sha256').update(film('cross-jammed.mp4')).digest('hex');
    expect(readFileSync(gym.files.shelf.pathOf(hash)!).equals(film('cross-jammed.mp4'))).toBe(true);
  });

  it('carries over what lay on the machine before, and misses nothing meanwhile', async () => {
    const gym = await gymInStore();
    const before = new ClipFiles(gym.folder);
    const { id } = await addClip(
      gym.db,
      before,
      newClip(await student(gym), film('cross-clean.mp4')),
    );
    const clip = (await clipById(gym.db, id))!;
    expect(await gym.files.size(clip.sha256)).toBe(clip.bytes);
    const { missing, films } = await keptFilms(gym.db, gym.files, new Date());
    expect([films, missing.size]).toEqual([1, 0]);
    const looking = await gym.shelf.read(clip.sha256, 0, clip.bytes - 1);
    expect(await gym.shelf.carryOver()).toBe(1);
    expect(await before.size(clip.sha256)).toBeNull();
    expect(Buffer.from(await new Response(looking).bytes()).equals(film('cross-clean.mp4'))).toBe(
      true,
    );
    expect(await gym.files.size(clip.sha256)).toBe(clip.bytes);
    expect(await gym.shelf.carryOver()).toBe(0);
  });

  it('puts films aside that no clip names, on its own disk, and brings them back', async () => {
    const gym = await gymInStore();
    await gym.shelf.put(written(gym.folder, bytes), sha256);
    const later = new Date(Date.now() + 2 * 3_600_000);
    const { strays } = await keptFilms(gym.db, gym.files, later);
    expect(strays).toEqual([sha256]);
    await putStraysAside(gym.files, strays, later);
    expect(await gym.files.size(sha256)).toBeNull();
    await bringBack(gym.files, new Set([sha256]));
    expect(await gym.files.size(sha256)).toBe(bytes.length);
  });

  it('does not take a film that was changed on its way to the store', async () => {
    const gym = await gymInStore();
    const path = written(gym.folder, bytes);
    const other = createHash('sha256').update('something else').digest('hex');
    await expect(gym.shelf.put(path, other)).rejects.toMatchObject({ status: 503 });
    expect(await gym.shelf.size(other)).toBeNull();
    expect(existsSync(path)).toBe(true);
  });

  it('does not hand out a film that is another one in the store', async () => {
    const gym = await gymInStore('altered/');
    const Key = `altered/${shelfPlace(sha256)}`;
    await store.client.send(
      new PutObjectCommand({ Bucket: store.place.bucket, Key, Body: 'no film' }),
    );
    const out = join(gym.folder, 'out.bin');
    await expect(gym.shelf.takeOut(sha256, out)).rejects.toThrow(/another film/);
    expect([existsSync(out), await gym.shelf.size(sha256)]).toEqual([false, 7]);
  });

  it('lists a store of more films than come in one answer', async () => {
    const gym = await gymInStore('many/');
    const names = Array.from({ length: 123 }, (_, i) =>
      createHash('sha256').update(String(i)).digest('hex'),
    );
    const queue = [...names];
    const put = async () => {
      for (let name = queue.pop(); name; name = queue.pop()) {
        const Key = `many/${shelfPlace(name)}`;
        await store.client.send(
          new PutObjectCommand({ Bucket: store.place.bucket, Key, Body: 'x' }),
        );
      }
    };
    await Promise.all(Array.from({ length: 8 }, put));
    expect((await listed(gym.shelf)).sort()).toEqual([...names].sort());
  }, 120_000);

  it('says so when the store is away, loses nothing, and goes on when it is back', async () => {
    const gym = await gymInStore();
    const who = await student(gym);
    const { id } = await addClip(gym.db, gym.files, newClip(who, film('cross-clean.mp4')));
    const clip = (await clipById(gym.db, id))!;
    const other = newClip(who, film('lead-hook-slap.mp4'));
    const { id: erased } = await addClip(gym.db, gym.files, other);
    const erasedFilm = (await clipById(gym.db, erased))!.sha256;
    await store.stop();
    try {
      const away = { status: 503, message: expect.stringContaining('does not answer') };
      await expect(gym.files.shown(clip.sha256)).rejects.toMatchObject(away);
      await expect(
        addClip(gym.db, gym.files, newClip(who, film('cross-jammed.mp4'))),
      ).rejects.toMatchObject(away);
      // Nobody may take silence for a film that is gone.
      await expect(keptFilms(gym.db, gym.files, new Date())).rejects.toMatchObject(away);
      expect(gym.shelf.isAway).toBe(true);
      const upkeep = await lookAfter(gym, new Date());
      expect(upkeep).toMatchObject({ isStoreAway: true, strays: null });
      // The database is backed up all the same, and no film is taken for gone.
      expect(await maintain(gym, new Date(), upkeep)).toBe(true);
      // A consent that is withdrawn meanwhile: the numbers stay, and the film goes when the store is back.
      expect(await purgeFilm(gym.db, gym.files, erased)).toBe(true);
    } finally {
      await store.start();
    }
    const rows = await gym.db.selectFrom('clip').select('id').execute();
    expect(rows.map((row) => row.id).sort()).toEqual([id, erased].sort());
    expect(readdirSync(join(gym.folder, 'incoming'))).toEqual([]);
    await expect
      .poll(() => gym.files.size(clip.sha256).catch(() => null), { timeout: 10_000 })
      .toBe(clip.bytes);
    expect(gym.shelf.isAway).toBe(false);
    expect(await gym.files.size(erasedFilm)).not.toBeNull();
    const later = new Date(Date.now() + 2 * 3_600_000);
    const { strays, erased: leftBehind } = await keptFilms(gym.db, gym.files, later);
    expect([strays, leftBehind]).toEqual([[], [erasedFilm]]);
    await maintain(gym, later, await lookAfter(gym, later));
    expect(await gym.files.size(erasedFilm)).toBeNull();
    expect(await filmsAside(gym.folder)).toEqual([]);
    await addClip(gym.db, gym.files, newClip(who, film('cross-jammed.mp4')));
  }, 120_000);
});

describe('the setting of a store', () => {
  const ALL = {
    SINEW_S3_ENDPOINT: 'https://store.gym:8080',
    SINEW_S3_BUCKET: 'boathouse',
    SINEW_S3_KEY: 'a',
    SINEW_S3_SECRET: 'b',
  };

  it('is there whole, or not at all, or nothing starts', () => {
    expect(s3Place({})).toBeNull();
    expect(s3Place({ SINEW_S3_BUCKET: '' })).toBeNull();
    expect(s3Place(ALL)).toMatchObject({ region: 'us-east-1', prefix: 'clips/' });
    expect(s3Place({ ...ALL, SINEW_S3_PREFIX: 'north' })).toMatchObject({ prefix: 'north/' });
    expect(() => s3Place({ SINEW_S3_BUCKET: 'boathouse' })).toThrow(
      /SINEW_S3_ENDPOINT, SINEW_S3_KEY, SINEW_S3_SECRET/,
    );
    expect(() => s3Place({ ...ALL, SINEW_S3_ENDPOINT: 'ftp://x' })).toThrow(/SINEW_S3_ENDPOINT/);
  });
});
