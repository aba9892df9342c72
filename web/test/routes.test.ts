/** Every route, asked as the pages ask it: what it answers, what it refuses, what is kept afterwards. */
import { EMPTY_DOCUMENT } from '@sinew/core/analysis/clipDocument';
import { readFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { writeTrackJson } from '@sinew/core/format/trackJson';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { LIBRARY_VERSION } from '@sinew/core/judge/library/edits';
import { problemSchema } from '@sinew/core/foundation/problem/problem';
import { surveySchema } from '@sinew/core/observe/take/survey';
import { PRINTED } from '@sinew/core/observe/band/band';
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import { detectionOf } from '@sinew/core/observe/track/poseDetection';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { ask } from '@/api/client';
import { decodeDetections, encodeDetections } from '@/api/detectionBlob';
import * as ends from '@/api/endpoints';
import { loadBench } from '@/data/bench/bench';
import type { JobRequest } from '@/api/job';
import { measureAllLater, measureClipLater } from '@/data/finding/measureLater';
import { setBands } from '@/data/student/students';
import { setTrashed } from '@/data/maintenance/trash';
import { startApp, type TestApp } from './app';
import { film, markedClip, student, type MarkedClip } from './support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

let app: TestApp;
let who: string;
let marked: MarkedClip;

beforeAll(async () => {
  process.env.SINEW_LOG = 'info';
  app = await startApp();
  who = await student(app.gym);
  marked = await markedClip(app.gym, who);
});
beforeEach(() => {
  vi.mocked(measureClipLater).mockClear();
  vi.mocked(measureAllLater).mockClear();
});
afterAll(() => app.stop());

/** What a refusal says, checked to be a problem with sentences of ours. */
async function refusal(answer: Response) {
  const told = problemSchema.parse(await answer.json());
  for (const sentence of [told.happened, told.safe, told.todo].filter(Boolean)) {
    expect(sentence).toMatch(/^[A-Z“].*[.?]$/s);
    expect(sentence).not.toMatch(/\b(expected|undefined|null|zod|SQLITE)\b/i);
  }
  return { status: answer.status, code: told.code, says: told.message };
}
/** The hips' band, read in two frames. */
const bandsRead = (last = 4): KeptBands => ({
  seam: 'front',
  isSquareKnown: false,
  bands: {
    hips: {
      girth: 0.96,
      turn: { frames: [3, last], yaw: [-0.8, -0.7], shake: [0.01, 0.01], lasting: [0.05, 0.05] },
      silent: [{ why: 'an arm lies over the band', frames: 7 }],
    },
  },
});
const json = (method: string, body: unknown): RequestInit => ({
  method,
  body: typeof body === 'string' ? body : JSON.stringify(body),
  headers: { 'content-type': 'application/json' },
});

describe('clips', () => {
  const post = (query: Record<string, string>, body: Uint8Array = film('cross-jammed.mp4')) =>
    app.fetch(`/api/clips?${new URLSearchParams(query)}`, {
      method: 'POST',
      body: body as BodyInit,
      headers: { 'content-length': String(body.length) },
    });

  it('are taken in once, with what is said about them, and may be tracked at once', async () => {
    const query = {
      student: who,
      name: 'jammed.mp4',
      view: 'front',
      rate: '240',
      track: 'quick',
      technique: 'cross',
      question: 'order',
      intent: 'full',
      round: '2',
    };
    const first = await post(query);
    expect(first.status).toBe(201);
    const { id } = (await first.json()) as { id: string };
    const again = await post(query);
    expect(again.status).toBe(200);
    expect(await again.json()).toMatchObject({ id });
    const { clip, bench } = await ask(ends.CLIP_FACTS, [id]);
    expect(clip).toMatchObject({ fileName: 'jammed.mp4', view: 'front', captureRate: 240 });
    expect(bench.document).toMatchObject({
      purpose: { technique: 'cross', question: 'order' },
      intent: 'full',
      round: 2,
    });
    expect(await ask(ends.JOB, [id])).toMatchObject({ state: 'wanted', model: 'quick' });
    expect((await ask(ends.OPEN_JOBS, [])).map(({ clipId }) => clipId)).toContain(id);
  });

  it.each([
    ['nobody to belong to', { name: 'a.mp4', view: 'side' }],
    ['no view', { student: 'x', name: 'a.mp4' }],
    ['a view there is not', { student: 'x', name: 'a.mp4', view: 'below' }],
    ['a rate that is none', { student: 'x', name: 'a.mp4', view: 'side', rate: 'fast' }],
    [
      'a technique there is not',
      { student: 'x', name: 'a.mp4', view: 'side', technique: 'headbutt' },
    ],
  ])('with %s are not taken in', async (_, query) => {
    expect(await refusal(await post(query))).toMatchObject({ status: 400, code: 'not-understood' });
  });

  it('that are no films, or of nobody, are refused in words', async () => {
    const query = { student: who, name: 'a.mp4', view: 'side' };
    const noFilm = await refusal(await post(query, new Uint8Array(2000).fill(7)));
    expect(noFilm.status).toBe(415);
    const ofNobody = await refusal(await post({ ...query, student: 'nobody' }));
    expect(ofNobody.status).toBeGreaterThanOrEqual(400);
    expect(ofNobody.status).toBeLessThan(500);
  });

  it.each([
    ['by itself', 'clip'],
    ['with its student', 'student'],
  ] as const)('put away %s answer on none of their routes, and come back', async (_, kind) => {
    const owner = await student(app.gym);
    const { clipId, strikeId, document } = await markedClip(app.gym, owner);
    const whose = kind === 'clip' ? clipId : owner;
    const bench = { revision: 1, document };
    const asked: readonly [string, RequestInit?][] = [
      [`/api/clips/${clipId}/file`],
      [`/api/clips/${clipId}/bench`],
      [`/api/clips/${clipId}/bench`, json('PUT', bench)],
      [`/api/clips/${clipId}/bands`],
      [`/api/clips/${clipId}/bands`, json('PUT', bandsRead())],
      [`/api/clips/${clipId}/detections`],
      [`/api/clips/${clipId}/detections`, { method: 'POST', body: encodeDetections([]) }],
      [`/api/clips/${clipId}/document`],
      [`/api/clips/${clipId}/facts`],
      [`/api/clips/${clipId}/second`],
      [`/api/clips/${clipId}/second`, { method: 'DELETE' }],
      [`/api/clips/${clipId}/series`, { method: 'DELETE' }],
      [`/api/clips/${clipId}/survey`],
      [`/api/clips/${clipId}/tracking`],
      [`/api/clips/${clipId}/tracking`, { method: 'DELETE' }],
      [`/api/strikes/${strikeId}/set`],
    ];
    await setTrashed(app.gym.db, kind, whose, true);
    for (const [path, init] of asked) {
      const answer = await app.fetch(path, init);
      expect(await refusal(answer), path).toMatchObject({ status: 404, code: 'gone' });
    }
    await setTrashed(app.gym.db, kind, whose, false);
    for (const [path, init] of asked.filter(([, given]) => given === undefined)) {
      expect((await app.fetch(path, init)).status, path).toBe(200);
    }
  });

  it('give their film whole or in part, as a film and nothing else', async () => {
    const url = `/api/clips/${marked.clipId}/file`;
    const whole = await app.fetch(url);
    const bytes = film('cross-clean.mp4');
    expect(whole.headers.get('content-type')).toBe('video/mp4');
    expect(Buffer.from(await whole.arrayBuffer()).equals(bytes)).toBe(true);
    const part = await app.fetch(url, { headers: { range: 'bytes=10-19' } });
    expect(part.status).toBe(206);
    expect(part.headers.get('content-range')).toBe(`bytes 10-19/${bytes.length}`);
    expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(10, 20))).toBe(true);
    const beyond = await app.fetch(url, { headers: { range: `bytes=${bytes.length}-` } });
    expect(beyond.status).toBe(416);
    expect(await refusal(await app.fetch('/api/clips/none/file'))).toMatchObject({ status: 404 });
  });
});

describe('the bench of a clip', () => {
  it('is saved from the state it was made from, and from no older one', async () => {
    const { revision, document } = await ask(ends.BENCH, [marked.clipId]);
    const changed = { ...document, captureRate: 240 };
    const saved = await ask(ends.SAVE_BENCH, [marked.clipId], { revision, document: changed });
    expect(saved.revision).toBe(revision + 1);
    expect(measureClipLater).toHaveBeenCalledWith(marked.clipId);
    const late = app.fetch(
      `/api/clips/${marked.clipId}/bench`,
      json('PUT', { revision, document }),
    );
    expect(await refusal(await late)).toMatchObject({ status: 409, code: 'conflict' });
    const now = await ask(ends.BENCH, [marked.clipId]);
    const last = { by: 'The coach', at: expect.any(String) as string };
    expect(now).toEqual({ revision: revision + 1, document: changed, saved: last });
    await ask(ends.SAVE_BENCH, [marked.clipId], { revision: now.revision, document });
  });

  it.each(['{', '[]', '{"revision":-1}', '{"revision":0,"document":{"view":"below"}}'])(
    'is not overwritten by %s',
    async (body) => {
      const before = await ask(ends.BENCH, [marked.clipId]);
      const answer = await app.fetch(`/api/clips/${marked.clipId}/bench`, json('PUT', body));
      expect(await refusal(answer)).toMatchObject({ status: 400, code: 'not-understood' });
      expect(await ask(ends.BENCH, [marked.clipId])).toEqual(before);
      expect(measureClipLater).not.toHaveBeenCalled();
    },
  );

  it('with one strike twice, or with one of another clip, is refused and changes nothing', async () => {
    const other = await markedClip(app.gym, who, 'cross-in-order.mp4');
    const before = (await loadBench(app.gym.db, marked.clipId))!;
    const [strike] = before.document.strikes;
    const put = async (strikes: readonly unknown[]) =>
      refusal(
        await app.fetch(
          `/api/clips/${marked.clipId}/bench`,
          json('PUT', { revision: before.revision, document: { ...before.document, strikes } }),
        ),
      );
    expect(await put([strike, strike])).toMatchObject({ status: 400 });
    expect(await put([{ ...strike, id: other.strikeId }])).toMatchObject({
      status: 422,
      says: expect.stringMatching(/of another clip.*Reload/),
    });
    expect(await loadBench(app.gym.db, marked.clipId)).toEqual(before);
  });

  it('of a clip that is gone is told to be gone', async () => {
    const body = { revision: 0, document: EMPTY_DOCUMENT };
    const answers = [
      await app.fetch('/api/clips/none/bench'),
      await app.fetch('/api/clips/none/bench', json('PUT', body)),
      await app.fetch('/api/clips/none/facts'),
      await app.fetch('/api/clips/none/document'),
    ];
    for (const answer of answers) {
      expect(await refusal(answer)).toMatchObject({ status: 404, code: 'gone' });
    }
  });

  it('goes out as a file that the command line reads, without film and name', async () => {
    const answer = await app.fetch(`/api/clips/${marked.clipId}/document`);
    expect(answer.headers.get('content-disposition')).toContain(`clip-${marked.clipId}.json`);
    const text = await answer.text();
    expect(JSON.parse(text)).toMatchObject({ document: { strikes: [{ technique: 'cross' }] } });
    expect(text).not.toContain('Somebody');
  });

  it('has its set judged as one', async () => {
    const report = await ask(ends.SET_REPORT, [marked.strikeId]);
    expect(report.strikes.map(({ id }) => id)).toEqual([marked.strikeId]);
    expect(report.isProvisional).toBe(true);
    expect(await refusal(await app.fetch('/api/strikes/none/set'))).toMatchObject({ status: 404 });
  });
});

describe('what a film shows', () => {
  const survey = surveySchema.parse(
    JSON.parse(readFileSync('demo/detections/cross-jammed.mp4.survey.json', 'utf8')),
  );
  const detection = (frame: number) =>
    detectionOf(frame, () => ({ x: 300, y: 200, visibility: 0.9, inSpace: [0, 0, 0] }));

  it('is kept as a survey when it is one, of this film', async () => {
    const facts = await ask(ends.CLIP_FACTS, [marked.clipId]);
    const own = {
      ...survey,
      width: facts.clip.width,
      height: facts.clip.height,
      amounts: facts.clip.frameTimes.map(() => 0),
      hits: [],
      breaths: [],
    };
    expect(await ask(ends.SURVEY, [marked.clipId])).toBeNull();
    await ask(ends.KEEP_SURVEY, [marked.clipId], own);
    expect(await ask(ends.SURVEY, [marked.clipId])).toEqual(own);
    const url = `/api/clips/${marked.clipId}/survey`;
    expect(await refusal(await app.fetch(url, json('PUT', { width: 1 })))).toMatchObject({
      status: 400,
    });
    expect(await ask(ends.SURVEY, [marked.clipId])).toEqual(own);
  });

  it('is kept as pose detections while the body is looked for, and only then', async () => {
    const url = `/api/clips/${marked.clipId}/detections`;
    const body = encodeDetections([detection(3), detection(4)]) as BodyInit;
    const early = await app.fetch(url, { method: 'POST', body });
    expect(await refusal(early)).toMatchObject({ status: 404 });
    await ask(ends.CHANGE_JOB, [marked.clipId], { kind: 'start', model: 'quick', person: null });
    expect((await app.fetch(url, { method: 'POST', body })).status).toBe(200);
    const garbage = await app.fetch(url, { method: 'POST', body: new Uint8Array(40) });
    expect(await refusal(garbage)).toMatchObject({ status: 400, code: 'not-understood' });
    const kept = decodeDetections(new Uint8Array(await (await app.fetch(url)).arrayBuffer()));
    expect(kept.map(({ frame }) => frame)).toEqual([3, 4]);
    expect(kept[0]!.values.length).toBe(detection(3).values.length);
  });

  it('is looked for, paused, gone on with, finished and given up', async () => {
    const state = async () => (await ask(ends.JOB, [marked.clipId]))?.state ?? null;
    const wanted = (request: JobRequest) => ask(ends.CHANGE_JOB, [marked.clipId], request);
    await wanted({ kind: 'start', model: 'quick', person: null });
    expect(await state()).toBe('wanted');
    await wanted({ kind: 'pause' });
    expect(await state()).toBe('paused');
    await wanted({ kind: 'resume' });
    expect(await state()).toBe('wanted');
    expect(measureClipLater).not.toHaveBeenCalled();
    await wanted({ kind: 'finish', state: 'done', message: null });
    expect(await state()).toBe('done');
    expect(measureClipLater).toHaveBeenCalledWith(marked.clipId);
    await ask(ends.DROP_JOB, [marked.clipId]);
    expect(await state()).toBeNull();
    const none = await app.fetch('/api/clips/none/tracking', json('PUT', { kind: 'pause' }));
    expect(await refusal(none)).toMatchObject({ status: 404 });
    const odd = await app.fetch(
      `/api/clips/${marked.clipId}/tracking`,
      json('PUT', { kind: 'hurry' }),
    );
    expect(await refusal(odd)).toMatchObject({ status: 400 });
  });
});

describe('bands worn in a film', () => {
  const wanted = (request: JobRequest) => ask(ends.CHANGE_JOB, [marked.clipId], request);
  const read = () => ask(ends.BANDS_READ, [marked.clipId]);

  it('are looked for where somebody has measured their girth', async () => {
    expect((await ask(ends.CLIP_FACTS, [marked.clipId])).worn).toEqual({});
    const girths = { kind: 'printed', hipsCm: 96, ribsCm: null, seam: 'back' } as const;
    expect(await setBands(app.gym.db, who, girths)).toBe(true);
    const { worn, stance } = await ask(ends.CLIP_FACTS, [marked.clipId]);
    expect(worn).toEqual({ hips: { code: PRINTED.hips, girth: 0.96, seam: 'back' } });
    expect(stance).toBe('orthodox');
  });

  it('are kept as they were read, of this film only, until they are read anew', async () => {
    expect(await read()).toBeNull();
    await wanted({ kind: 'start', model: 'quick', person: null });
    await ask(ends.KEEP_BANDS, [marked.clipId], bandsRead());
    expect(await read()).toEqual(bandsRead());
    const url = `/api/clips/${marked.clipId}/bands`;
    for (const [sent, status] of [
      [bandsRead(100_000_000), 404],
      [bandsRead(3), 400],
      [{ seam: 'side' }, 400],
    ] as const) {
      expect(await refusal(await app.fetch(url, json('PUT', sent)))).toMatchObject({ status });
    }
    expect(await read()).toEqual(bandsRead());
    await wanted({ kind: 'finish', state: 'done', message: null });
    await wanted({ kind: 'bands' });
    expect(await read()).toBeNull();
    expect((await ask(ends.JOB, [marked.clipId]))?.state).toBe('wanted');
  });

  it('go with the body they were read by', async () => {
    await wanted({ kind: 'start', model: 'quick', person: null });
    await ask(ends.KEEP_BANDS, [marked.clipId], bandsRead());
    await ask(ends.DROP_JOB, [marked.clipId]);
    expect(await read()).toBeNull();
  });
});

describe('a series from elsewhere', () => {
  const inSpace = writeTrackJson(
    knownTrack(clean('cross', { contact: 0.4 }), { rate: 60, noise: 0, seed: 1 }),
  );
  const url = () => `/api/clips/${marked.clipId}/series`;

  it('in space is kept, and forgotten again', async () => {
    const sent = { fileName: 'take.json', begins: 0.2, track: inSpace };
    const { series } = await ask(ends.KEEP_SERIES, [marked.clipId], sent);
    expect(series).toMatchObject({ fileName: 'take.json', begins: 0.2 });
    expect(Object.keys((JSON.parse(series!.track) as { points: object }).points)).toEqual(
      expect.arrayContaining(LANDMARKS.filter((one) => inSpace.includes(`"${one}"`))),
    );
    await ask(ends.DROP_SERIES, [marked.clipId]);
    expect(measureClipLater).toHaveBeenCalledTimes(2);
  });

  it('in the picture takes the place of what the tracker saw, where it overlaps the film', async () => {
    const flat = {
      sinew: 'track',
      version: 1,
      space: '2d',
      source: 'measured-2d',
      placingSigma: 1,
      scale: null,
      target: null,
      frameTimes: [0, 1 / 60, 2 / 60],
      points: { leftWrist: { frames: [0, 1, 2], x: [1, 2, 3], y: [4, 5, 6], sigma: [1, 1, 1] } },
    };
    const sent = (begins: number) => ({
      fileName: 'flat.json',
      begins,
      track: JSON.stringify(flat),
    });
    expect(await ask(ends.KEEP_SERIES, [marked.clipId], sent(0))).toEqual({ series: null });
    const beside = await app.fetch(url(), json('PUT', sent(900)));
    expect(await refusal(beside)).toMatchObject({
      status: 422,
      says: expect.stringContaining('do not overlap in time') as string,
    });
    await ask(ends.DROP_JOB, [marked.clipId]);
  });

  it.each([
    ['not JSON', '{', 'not JSON'],
    ['no track', '{"sinew":"track","version":1,"space":"4d"}', 'not a Sinew track'],
  ])('that is %s is refused by what is wrong', async (_, track, why) => {
    const answer = await app.fetch(url(), json('PUT', { fileName: 'a.json', begins: 0, track }));
    expect(await refusal(answer)).toMatchObject({
      status: 422,
      says: expect.stringContaining(why) as string,
    });
  });
});

describe('two films of one strike', () => {
  it('are joined and parted, and never with a film of somebody else', async () => {
    const other = await student(app.gym);
    const front = await markedClip(app.gym, who, 'elbow-front.mp4');
    const foreign = await markedClip(app.gym, other, 'kick-front.mp4');
    const offset = { seconds: 0.25, sigma: 0.002, by: 'sound', pairs: 3 } as const;
    await ask(ends.JOIN, [marked.clipId], { clip: front.clipId, offset });
    expect(await ask(ends.SECOND_VIEW, [marked.clipId])).toMatchObject({
      clip: { id: front.clipId },
      offset,
    });
    // Seen from the other film, the same offset the other way round.
    expect(await ask(ends.SECOND_VIEW, [front.clipId])).toMatchObject({
      clip: { id: marked.clipId },
      offset: { seconds: -0.25 },
    });
    const url = `/api/clips/${marked.clipId}/second`;
    const toForeign = await app.fetch(url, json('PUT', { clip: foreign.clipId, offset }));
    expect(await refusal(toForeign)).toMatchObject({ status: 404 });
    const cutShort = await app.fetch(url, json('PUT', { clip: front.clipId }));
    expect(await refusal(cutShort)).toMatchObject({ status: 400 });
    await ask(ends.PART, [marked.clipId]);
    expect(await ask(ends.SECOND_VIEW, [marked.clipId])).toBeNull();
  });
});

describe('the library', () => {
  it('goes out and comes back the same, under a name, and everybody is measured anew', async () => {
    const file = (await (await app.fetch('/api/library')).json()) as object;
    expect(file).toMatchObject({ format: 'sinew-library', version: LIBRARY_VERSION });
    await ask(ends.TAKE_LIBRARY, ['Harbour coach'], file);
    expect(measureAllLater).toHaveBeenCalledOnce();
    expect(await (await app.fetch('/api/library')).json()).toEqual(file);
  });

  it.each([
    ['without a name', '', { format: 'sinew-library', version: 2, edits: {} }],
    ['that is another file', 'Somebody', { format: 'recipes' }],
    ['that is no JSON', 'Somebody', '{'],
  ])('is not taken over %s', async (_, by, file) => {
    const before = await (await app.fetch('/api/library')).json();
    const answer = await app.fetch(`/api/library?by=${by}`, json('PUT', file));
    expect(await refusal(answer)).toMatchObject({
      status: 400,
      says: expect.stringContaining('Nothing was changed.') as string,
    });
    expect(await (await app.fetch('/api/library')).json()).toEqual(before);
    expect(measureAllLater).not.toHaveBeenCalled();
  });
});

describe('files for the coach', () => {
  it('the plan is a calendar', async () => {
    const answer = await app.fetch('/api/plan');
    expect(answer.headers.get('content-type')).toContain('text/calendar');
    expect(await answer.text()).toMatch(/^BEGIN:VCALENDAR\r\n[\s\S]*END:VCALENDAR\r\n$/);
  });

  it('a ledger is JSON or CSV, under the student’s name, and only of somebody there', async () => {
    const plain = await app.fetch(`/api/students/${who}/ledger`);
    expect(plain.headers.get('content-disposition')).toBe(
      'attachment; filename="ledger-somebody.json"',
    );
    expect(await plain.json()).toMatchObject({ student: { name: 'Somebody' } });
    const csv = await app.fetch(`/api/students/${who}/ledger?as=csv`);
    expect(csv.headers.get('content-type')).toContain('text/csv');
    const none = await app.fetch('/api/students/none/ledger');
    expect(await refusal(none)).toMatchObject({ status: 404, code: 'gone' });
  });

  it('everybody who trains here can be found by name', async () => {
    const everybody = await ask(ends.STUDENTS, []);
    expect(everybody.map(({ id }) => id)).toContain(who);
    expect(Object.keys(everybody[0]!).sort()).toEqual(['classGroup', 'id', 'name']);
  });

  it('the whole gym goes out, is checked, and comes back without a second of anything', async () => {
    const out = await app.fetch('/api/gym');
    expect(out.headers.get('content-disposition')).toMatch(/sinew-gym-\d{4}-\d\d-\d\d\.zip/);
    const zip = new Uint8Array(await out.arrayBuffer());
    const put = async (query: string, body: Uint8Array) =>
      app.fetch(`/api/gym${query}`, { method: 'PUT', body: body as BodyInit });
    const { checked } = (await (await put('?check', zip)).json()) as {
      checked: { students: number; clips: number };
    };
    const { imported } = (await (await put('', zip)).json()) as {
      imported: { added: object; present: object };
    };
    expect(imported.added).toMatchObject({ students: 0, clips: 0 });
    expect(imported.present).toMatchObject({ students: checked.students, clips: checked.clips });
    for (const query of ['?check', '']) {
      const cut = await put(query, zip.slice(0, zip.length / 2));
      expect((await refusal(cut)).status).toBe(422);
    }
  });

  it('one student goes out with everything, a stranger not, and the gym without its trash', async () => {
    const part = async (path: string) => {
      const answer = await app.fetch(path);
      expect(answer.headers.get('content-disposition')).toMatch(
        /^attachment; filename="sinew-[a-z]+-/,
      );
      const bytes = new Uint8Array(await answer.arrayBuffer());
      return JSON.parse(strFromU8(unzipSync(bytes)['manifest.json']!)) as { counts: object };
    };
    expect((await part(`/api/students/${who}/file`)).counts).toMatchObject({ student: 1 });
    expect(await refusal(await app.fetch('/api/students/nobody/file'))).toMatchObject({
      status: 404,
    });
    const gone = await student(app.gym);
    await setTrashed(app.gym.db, 'student', gone, true);
    const [whole, kept] = [await part('/api/gym'), await part('/api/gym?kept')] as {
      counts: { student: number };
    }[];
    expect(whole!.counts.student - kept!.counts.student).toBeGreaterThanOrEqual(1);
  });

  it('a support file holds the log and no name', async () => {
    const answer = await app.fetch('/api/support');
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const text = Object.values(files)
      .map((one) => strFromU8(one))
      .join('\n');
    expect(text).toContain('/api/library');
    expect(text).not.toContain('Somebody');
  });
});
