/** A film over bad Wi-Fi: cut at any byte, gone on with, and a clip only when it is whole. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { ask } from '@/api/client';
import { CONSENT_HERE, FILM_SENT, TAKE_LEASE, END_LEASE } from '@/api/endpoints';
import { closeAccess } from '@/data/access/accessDb';
import { deeds } from '@/data/access/deeds';
import { LEASE, takeLease } from '@/data/clip/leases';
import { clearTransfers } from '@/data/maintenance/sweep';
import { loadBench } from '@/data/bench/bench';
import { onNews } from '@/data/news/news';
import { studentById } from '@/data/student/students';
import { saidOf } from '@/screens/phone/useShown';
import { filmedFrom } from '@/ui/filmedFrom';
import { startApp, type TestApp } from './app';
import { film, student } from './support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));

const FILM = new Uint8Array(film('cross-jammed.mp4'));
const SHA256 = createHash('sha256').update(FILM).digest('hex');

let app: TestApp;
let who: string;

beforeAll(async () => {
  app = await startApp();
});
afterAll(async () => {
  await closeAccess();
  await app.stop();
});
beforeEach(async () => {
  who = await student(app.gym);
});

const TUS = { 'tus-resumable': '1.0.0' };
const base64 = (text: string) => Buffer.from(text).toString('base64');

/** @returns the answer to the announcement of a film. Source of the headers: tus.io, protocol 1.0.0 */
async function announced(about: Record<string, string> = {}, length = FILM.length) {
  const metadata = { student: who, name: 'film.mp4', view: 'side', ...about };
  return app.fetch('/api/uploads', {
    method: 'POST',
    headers: {
      ...TUS,
      'upload-length': String(length),
      'upload-metadata': Object.entries(metadata)
        .map(([name, value]) => `${name} ${base64(value)}`)
        .join(','),
    },
  });
}

/** Bytes in pieces as a network brings them; broken off after `until` when it is given. */
function bytes(from: number, to: number, until: number | null = null): ReadableStream<Uint8Array> {
  let at = from;
  return new ReadableStream({
    pull(controller) {
      const next = Math.min(at + 50_000, until ?? to);
      if (next > at) controller.enqueue(FILM.slice(at, next));
      at = next;
      if (until !== null && at >= until) controller.error(new Error('Wi-Fi is gone'));
      else if (at >= to) controller.close();
    },
  });
}

async function sendFrom(place: string, offset: number, until: number | null): Promise<number> {
  const answer = await app.fetch(place, {
    method: 'PATCH',
    headers: {
      ...TUS,
      'upload-offset': String(offset),
      'content-type': 'application/offset+octet-stream',
    },
    body: bytes(offset, FILM.length, until) as BodyInit,
  });
  return answer.status;
}

async function offsetOf(place: string): Promise<number> {
  const answer = await app.fetch(place, { method: 'HEAD', headers: TUS });
  expect(answer.status).toBe(200);
  return Number(answer.headers.get('upload-offset'));
}

const idOf = (place: string) => place.split('/').pop()!;
const sent = (place: string, sha256 = SHA256) =>
  ask(FILM_SENT, [idOf(place)], { sha256, student: who });
const left = (folder: string) => {
  const path = join(app.gym.folder, folder);
  return existsSync(path) ? readdirSync(path) : [];
};

describe('a film on its way', () => {
  it('cut a hundred times at random is whole in the end, once, with nothing left over', async () => {
    let seed = 7;
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    const place = (await announced({ technique: 'cross', track: 'quick' })).headers.get(
      'location',
    )!;
    expect(place).toMatch(/^\/api\/uploads\/[\w-]{21}$/);
    let at = 0;
    for (let cut = 0; cut < 100; cut++) {
      const rest = FILM.length - at;
      const until = at + Math.floor((random() * rest) / 12);
      await sendFrom(place, at, until);
      const now = await offsetOf(place);
      // What has come is never more than was sent, and never less than was there.
      expect(now).toBeGreaterThanOrEqual(at);
      expect(now).toBeLessThanOrEqual(Math.max(until, at));
      at = now;
      await expect(sent(place)).rejects.toThrow(/has not come whole yet/);
    }
    expect(await sendFrom(place, at, null)).toBe(204);
    const told: unknown[] = [];
    const stop = onNews((news) => told.push(news));
    const { id, isKnown } = await sent(place);
    stop();
    expect(isKnown).toBe(false);
    expect(told).toEqual([{ kind: 'clip', clipId: id, studentId: who }]);
    // Asked again, because the answer was lost on the way.
    expect(await sent(place)).toEqual({ id, isKnown: true });
    expect([left('uploads'), left('incoming')]).toEqual([[], []]);
    const kept = await app.fetch(`/api/clips/${id}/file`);
    expect(new Uint8Array(await kept.arrayBuffer())).toEqual(FILM);
    const job = (await (await app.fetch(`/api/clips/${id}/tracking`)).json()) as { state: string };
    expect(job.state).toBe('wanted');
    expect((await deeds(app.gym.db, 9, id)).map(({ what }) => what)).toEqual(['added-film']);
  });

  it('says where its camera stood, as the phone was told', async () => {
    const about = saidOf({
      technique: null,
      filmed: filmedFrom('rear corner, chest side')!,
      intent: null,
    });
    const place = (await announced(about)).headers.get('location')!;
    await sendFrom(place, 0, null);
    const { id } = await sent(place);
    expect((await loadBench(app.gym.db, id))!.document).toMatchObject({
      view: 'behind',
      azimuth: (3 * Math.PI) / 4,
    });
  });

  it('that came damaged is no clip, and is to be sent anew', async () => {
    const place = (await announced()).headers.get('location')!;
    await sendFrom(place, 0, null);
    await expect(sent(place, '0'.repeat(64))).rejects.toThrow(/damaged on its way.*Send it again/);
    await expect(sent(place)).rejects.toThrow(/Nothing is known of this film any more/);
    expect([left('uploads'), left('incoming')]).toEqual([[], []]);
  });

  it('that is no film is told so', async () => {
    const place = (await announced({}, 40_000)).headers.get('location')!;
    await app.fetch(place, {
      method: 'PATCH',
      headers: {
        ...TUS,
        'upload-offset': '0',
        'content-type': 'application/offset+octet-stream',
      },
      body: new Uint8Array(40_000),
    });
    const zeros = createHash('sha256').update(new Uint8Array(40_000)).digest('hex');
    await expect(sent(place, zeros)).rejects.toThrow(/Nothing was kept\./);
    expect(left('uploads')).toEqual([]);
  });

  it('is not begun without a consent, of nobody, or larger than the disk', async () => {
    who = await student(app.gym, { consent: null });
    const refusal = async (answer: Response) => [answer.status, await answer.text()];
    expect(await refusal(await announced())).toEqual([
      403,
      'Somebody has no consent to be filmed.',
    ]);
    expect((await announced({ student: 'nobody' })).status).toBe(404);
    expect((await announced({}, 5 * 1024 ** 3)).status).toBe(413);
    process.env.SINEW_KEEP_FREE_MB = '1000000000';
    who = await student(app.gym);
    expect((await announced()).status).toBe(507);
    delete process.env.SINEW_KEEP_FREE_MB;
  });

  it('is asked for by its name and no other', async () => {
    for (const id of ['..', '../sinew.db', '%2e%2e%2fsinew.db', 'x', '']) {
      await expect(ask(FILM_SENT, [id], { sha256: SHA256, student: who })).rejects.toThrow();
    }
    const answer = await app.fetch('/api/uploads/..%2fsinew.db', { method: 'HEAD', headers: TUS });
    expect(answer.status).toBe(404);
  });

  it('that never came whole is forgotten after a week, and not before', async () => {
    const place = (await announced()).headers.get('location')!;
    await sendFrom(place, 0, 60_000);
    const path = join(app.gym.folder, 'uploads', idOf(place));
    const ago = (days: number) => Date.now() / 1000 - days * 86_400;
    utimesSync(path, ago(6), ago(6));
    await clearTransfers(app.gym.files, new Date());
    expect(existsSync(path)).toBe(true);
    utimesSync(path, ago(8), ago(8));
    await clearTransfers(app.gym.files, new Date());
    expect(existsSync(path)).toBe(false);
  });
});

describe('a consent at the phone', () => {
  const give = (given: object) =>
    ask(CONSENT_HERE, [], {
      key: 'made-by-the-page',
      studentId: who,
      givenBy: 'student',
      name: 'Somebody',
      ...given,
    });

  it('is kept, of today, once', async () => {
    who = await student(app.gym, { consent: null });
    await give({ key: 'consent-key-1' });
    await give({ key: 'consent-key-1' });
    const { consent } = (await studentById(app.gym.db, who))!;
    expect(consent).toMatchObject({ givenBy: 'student', name: 'Somebody' });
  });

  it('of somebody under 18 is a guardian’s', async () => {
    who = await student(app.gym, { consent: null, isMinor: true });
    await expect(give({ key: 'consent-key-2' })).rejects.toThrow(/under 18: a guardian/);
    await give({ key: 'consent-key-3', givenBy: 'guardian', name: 'Mara' });
    expect((await studentById(app.gym.db, who))!.consent?.name).toBe('Mara');
  });
});

describe('who looks for the body', () => {
  it('is one browser at a time, until it says nothing more', async () => {
    const place = (await announced()).headers.get('location')!;
    await sendFrom(place, 0, null);
    const { id } = await sent(place);
    const take = async (worker: string) => (await ask(TAKE_LEASE, [id], { worker })).isYours;
    expect(await take('laptop-one')).toBe(true);
    expect(await take('laptop-one')).toBe(true);
    expect(await take('laptop-two')).toBe(false);
    await ask(END_LEASE, [id], { worker: 'laptop-two' });
    expect(await take('laptop-two')).toBe(false);
    expect(takeLease(id, 'laptop-two', Date.now() + LEASE + 1)).toBe(true);
    expect(await take('laptop-one')).toBe(false);
    await ask(END_LEASE, [id], { worker: 'laptop-two' });
    expect(await take('laptop-one')).toBe(true);
  });
});
