/** What a coach said over a strike: kept whole, with the clip, for whose strike it is. */
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { deleteClip, destroyClip, purgeFilm, restoreClip } from '@/data/clip/clipEnds';
import { ClipFiles } from '@/data/film/clipFiles';
import { sweepTalks, talkOf, talksOf } from '@/data/clip/talks';
import { startApp, type TestApp } from './app';
import { markedClip, student } from './support';

vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

/** The beginning of an MP4 file, and some bytes. */
const film = (of: string) =>
  new Uint8Array(Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from(`ftypisom ${of}`)]));
const said = 'seconds=12.5';

let app: TestApp;
let who: string;
let clipId: string;
let strikeId: string;

beforeAll(async () => (app = await startApp()));
afterAll(() => app.stop());
beforeEach(async () => {
  who = await student(app.gym);
  const clip = await markedClip(app.gym, who);
  clipId = clip.clipId;
  strikeId = clip.strikeId;
});

const at = (of = { clipId, strikeId }) => `/api/clips/${of.clipId}/talks/${of.strikeId}`;
const keep = (of: string, query = said) =>
  app.fetch(`${at()}?${query}`, { method: 'PUT', body: film(of) });
const heard = async () => (await app.fetch(at())).text();
const folder = () => join(app.gym.folder, 'talks', clipId);

describe('what was said over a strike', () => {
  it('is kept as a film, read back in ranges, and replaced by what is said later', async () => {
    expect((await app.fetch(at())).status).toBe(404);
    expect((await keep('first')).status).toBe(200);
    expect(await heard()).toContain('first');
    const part = await app.fetch(at(), { headers: { range: 'bytes=4-7' } });
    expect([part.status, await part.text()]).toEqual([206, 'ftyp']);
    // Nobody’s words give way unasked.
    expect((await keep('second')).status).toBe(409);
    expect(await heard()).toContain('first');
    expect((await keep('second', `${said}&replace`)).status).toBe(200);
    expect(await heard()).toContain('second');
    expect(await talksOf(app.gym.db, app.gym.folder, who)).toMatchObject([
      { clipId, strikeId, technique: 'cross', seconds: 12.5 },
    ]);
    const deeds = await app.gym.db.selectFrom('deed').select(['what', 'student_id']).execute();
    expect(deeds).toContainEqual({ what: 'talked', student_id: who });
  });

  it('refuses what is no film, or of no strike, and leaves what is there', async () => {
    await keep('first');
    const text = await app.fetch(`${at()}?${said}&replace`, { method: 'PUT', body: 'hello there' });
    expect(text.status).toBe(400);
    expect((await keep('second', 'seconds=nought&replace')).status).toBe(400);
    const other = { clipId, strikeId: 'another' };
    expect(
      (await app.fetch(`${at(other)}?${said}`, { method: 'PUT', body: film('x') })).status,
    ).toBe(404);
    const outside = { clipId, strikeId: '..%2F..%2Fkey' };
    expect((await app.fetch(at(outside))).status).toBe(404);
    expect(await heard()).toContain('first');
    expect(readdirSync(folder()).sort()).toEqual([`${strikeId}.json`, `${strikeId}.mp4`]);
  });

  it('is gone when it is deleted, and put away and brought back with its clip', async () => {
    await keep('first');
    await deleteClip(app.gym.db, clipId);
    expect((await app.fetch(at())).status).toBe(404);
    expect(await talksOf(app.gym.db, app.gym.folder, who)).toEqual([]);
    await restoreClip(app.gym.db, clipId);
    expect(await heard()).toContain('first');
    expect((await app.fetch(at(), { method: 'DELETE' })).status).toBe(200);
    expect((await app.fetch(at())).status).toBe(404);
  });

  it('is not heard while its strike is taken out of the clip', async () => {
    await keep('first');
    const taken = (removed_at: string | null) =>
      app.gym.db.updateTable('strike').set({ removed_at }).where('id', '=', strikeId).execute();
    await taken('2026-11-01T00:00:00.000Z');
    expect((await app.fetch(at())).status).toBe(404);
    expect(await talksOf(app.gym.db, app.gym.folder, who)).toEqual([]);
    await taken(null);
    expect(await talksOf(app.gym.db, app.gym.folder, who)).toHaveLength(1);
  });

  it('does not go over to another student with a clip that is moved', async () => {
    await keep('first');
    const other = await student(app.gym);
    await app.gym.db
      .updateTable('clip')
      .set({ student_id: other })
      .where('id', '=', clipId)
      .execute();
    expect((await app.fetch(at())).status).toBe(404);
    expect(await talksOf(app.gym.db, app.gym.folder, other)).toEqual([]);
    expect(await talkOf(app.gym.folder, { clipId, strikeId }, who)).not.toBeNull();
  });

  it.each([
    ['erased', purgeFilm],
    ['gone for good', destroyClip],
  ])('goes with a film that is %s', async (_, end) => {
    await keep('first');
    await end(app.gym.db, new ClipFiles(app.gym.folder), clipId);
    expect(existsSync(folder())).toBe(false);
  });

  it('is swept with an erased film, and never where the gym knows nothing of the clip', async () => {
    await keep('first');
    const unknown = join(app.gym.folder, 'talks', 'of-a-lost-database');
    mkdirSync(unknown);
    writeFileSync(join(unknown, 's.mp4'), film('kept'));
    await sweepTalks(app.gym.db, app.gym.folder);
    expect(await heard()).toContain('first');
    await app.gym.db
      .updateTable('clip')
      .set({ purged_at: '2026-11-01T00:00:00.000Z' })
      .where('id', '=', clipId)
      .execute();
    await sweepTalks(app.gym.db, app.gym.folder);
    expect(existsSync(folder())).toBe(false);
    expect(existsSync(join(unknown, 's.mp4'))).toBe(true);
  });
});
