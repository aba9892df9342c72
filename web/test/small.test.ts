/** The small pure parts: ranges, blobs, history, cache, commands, rows. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { EVENTS, eventsOf } from '@sinew/core/measure/events/events';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { techniqueById, TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { refuseForeign } from '@/app/api/answers';
import { isOwnHost } from '@/app/api/ownHost';
import { byteRange } from '@/data/film/byteRange';
import { EMPTY_DOCUMENT, clipDocumentSchema, toEighth } from '@sinew/core/analysis/clipDocument';
import { decodePlaced, decodeTimes, encodePlaced, encodeTimes } from '@/data/bench/placedBlob';
import { consentForm, studentForm } from '@/data/student/students';
import * as commands from '@/screens/bench/document/edits';
import * as history from '@/screens/bench/document/history';
import { AXIS_EVENTS, EVENT_KEY, laneOf, lanesOf } from '@/screens/bench/strip/lanes';
import { groupPlaced, pointsOnFrame } from '@/screens/bench/picture/pointsOnPicture';
import type { Cue } from '@/data/finding/findings';
import { NOTHING, type FloorFacts } from '@/data/gym/floor';
import { floorHeadline, floorRows, trainingTime } from '@/screens/floor/rows';
import { FrameCache } from '@/video/frameCache';

describe('byte ranges (RFC 9110, section 14; examples of 14.1.2 for 10 000 bytes)', () => {
  it.each([
    ['bytes=0-499', { kind: 'part', from: 0, to: 499 }],
    ['bytes=500-999', { kind: 'part', from: 500, to: 999 }],
    ['bytes=-500', { kind: 'part', from: 9500, to: 9999 }],
    ['bytes=9500-', { kind: 'part', from: 9500, to: 9999 }],
    ['bytes=9999-20000', { kind: 'part', from: 9999, to: 9999 }],
    ['bytes=10000-', { kind: 'unsatisfiable' }],
    ['bytes=-0', { kind: 'unsatisfiable' }],
    ['bytes=500-600,601-999', { kind: 'whole' }],
    ['bytes=9-3', { kind: 'whole' }],
    ['lines=1-2', { kind: 'whole' }],
    [null, { kind: 'whole' }],
  ])('%s', (header, expected) => {
    expect(byteRange(header, 10_000)).toEqual(expected);
  });
});

describe('blobs', () => {
  const placed = fc.record({
    landmark: fc.constantFrom(...LANDMARKS),
    frame: fc.integer({ min: 0, max: 1_000_000 }),
    x: fc.integer({ min: -80_000, max: 80_000 }).map((n) => n / 8),
    y: fc.integer({ min: -80_000, max: 80_000 }).map((n) => n / 8),
  });

  it('give back any points on an eighth of a pixel exactly', () => {
    fc.assert(
      fc.property(fc.array(placed), (points) => {
        expect(decodePlaced(encodePlaced(points))).toEqual(points);
        for (const { x } of points) expect(toEighth(x)).toBe(x);
      }),
    );
  });

  it('give back any times exactly', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ noNaN: true })), (times) => {
        expect(decodeTimes(encodeTimes(times))).toEqual(times);
      }),
    );
  });

  it('that are foreign or cut short are refused', () => {
    const good = encodePlaced([{ landmark: 'nose', frame: 1, x: 2, y: 3 }]);
    expect(() => decodePlaced(good.subarray(0, 20))).toThrow(/cut short/);
    expect(() => decodePlaced(Buffer.from('something else'))).toThrow(/not a blob/);
    const strange = Buffer.from(good);
    strange.writeUInt32LE(99, 8);
    expect(() => decodePlaced(strange)).toThrow(/does not exist/);
  });
});

describe('undo', () => {
  it('takes back one change at a time, a whole drag at once, and can go forward again', () => {
    let h = history.begin(0);
    h = history.change(h, 1);
    h = history.change(h, 2, 'drag');
    h = history.change(h, 3, 'drag');
    h = history.change(h, 4, 'another drag');
    expect([h.present, history.undo(h).present]).toEqual([4, 3]);
    const back = history.undo(history.undo(h));
    expect(back.present).toBe(1);
    expect(history.redo(back).present).toBe(3);
    expect(history.change(back, 9).future).toEqual([]);
    expect(history.undo(history.begin(7)).present).toBe(7);
    expect(history.redo(h)).toBe(h);
  });

  it('undoing everything leads back to the start, and redoing to the end', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { maxLength: 40 }), (changes) => {
        let h = changes.reduce(
          (one, value) => history.change(one, { value }),
          history.begin({ value: 0 }),
        );
        const end = h.present;
        for (let i = 0; i < changes.length; i++) h = history.undo(h);
        expect(h.present).toEqual({ value: 0 });
        for (let i = 0; i < changes.length; i++) h = history.redo(h);
        expect(h.present).toBe(end);
      }),
    );
  });
});

describe('the cache of frames', () => {
  it('stays within its bytes and lets go of the farthest frame first', () => {
    const cache = new FrameCache<string>(30);
    for (const index of [0, 1, 2, 3, 4]) cache.put(index, `f${index}`, 10, 4);
    expect([0, 1, 2, 3, 4].map((i) => cache.has(i))).toEqual([false, false, true, true, true]);
    cache.put(4, 'again', 10, 4);
    expect(cache.get(4)).toBe('f4');
    cache.put(9, 'huge', 500, 9);
    expect([cache.get(9), cache.has(4)]).toEqual(['huge', false]);
  });
});

describe('the bench’s commands', () => {
  const one = commands.addStrike(EMPTY_DOCUMENT, { id: 's', technique: 'cross', side: 'right' });

  it('set, move, widen and clear marks', () => {
    const marked = commands.setMark(one, 's', 'hips', 40);
    const wide = commands.widenMark(marked, 's', 'hips', 2);
    expect(wide.strikes[0]!.marks.hips).toEqual({ frame: 40, width: 3 });
    // Moving a mark keeps how unsure the coach was; a mark is never surer than its frame.
    expect(commands.setMark(wide, 's', 'hips', 42).strikes[0]!.marks.hips!.width).toBe(3);
    expect(commands.widenMark(marked, 's', 'hips', -2).strikes[0]!.marks.hips!.width).toBe(1);
    expect(commands.widenMark(one, 's', 'hips', 2)).toEqual(one);
    const strike = marked.strikes[0]!;
    expect(commands.toggleMark(marked, strike, 'hips', 40).strikes[0]!.marks).toEqual({});
    expect(commands.toggleMark(marked, strike, 'hips', 41).strikes[0]!.marks.hips!.frame).toBe(41);
    expect(one.strikes[0]!.marks).toEqual({});
  });

  it('place one point per landmark and frame', () => {
    const placed = commands.placePoint(one, 'nose', 3, { x: 1.06, y: 2.07 });
    const again = commands.placePoint(placed, 'nose', 3, { x: 5, y: 6 });
    expect(placed.placed).toEqual([{ landmark: 'nose', frame: 3, x: 1, y: 2.125 }]);
    expect(again.placed).toEqual([{ landmark: 'nose', frame: 3, x: 5, y: 6 }]);
    expect(commands.removePoint(again, 'nose', 3).placed).toEqual([]);
    expect(commands.removePoint(again, 'nose', 4)).toEqual(again);
  });

  it('find the next mark to set and the marks around a frame', () => {
    const strike = EVENTS.slice(0, 3).reduce(
      (document, event, i) => commands.setMark(document, 's', event, 10 * i),
      one,
    ).strikes[0]!;
    expect(commands.nextUnmarked(strike)).toBe('trunk');
    expect(commands.neighbourMark(strike, 10, 1)).toEqual({ event: 'hips', frame: 20 });
    expect(commands.neighbourMark(strike, 10, -1)?.frame).toBe(0);
    expect(commands.neighbourMark(strike, 20, 1)).toBeNull();
  });

  it('name, rename and remove strikes; every step is a valid document', () => {
    const renamed = commands.renameStrike(one, 's', { technique: 'jab', side: 'left' });
    expect(renamed.strikes[0]).toMatchObject({ technique: 'jab', side: 'left' });
    expect(commands.removeStrike(renamed, 's').strikes).toEqual([]);
    const line = { from: { x: 0.04, y: 0 }, to: { x: 10, y: 0 } };
    const full = commands.setTarget(commands.setScale(renamed, { ...line, metres: 1 }), line);
    expect(full.target!.from.x).toBe(0);
    expect(clipDocumentSchema.safeParse(full).success).toBe(true);
    expect(commands.setTarget(full, null).target).toBeNull();
  });
});

describe('points on the picture', () => {
  const times = Array.from({ length: 60 }, (_, i) => i / 100);
  const groups = groupPlaced([
    { landmark: 'nose', frame: 14, x: 140, y: 10 },
    { landmark: 'nose', frame: 10, x: 100, y: 10 },
    { landmark: 'nose', frame: 50, x: 500, y: 10 },
  ]);

  it('stand where they were placed, between neighbours, and nowhere across a long gap', () => {
    expect(pointsOnFrame(groups, 10, times)).toEqual([
      { landmark: 'nose', x: 100, y: 10, kind: 'placed' },
    ]);
    const [between] = pointsOnFrame(groups, 12, times);
    expect(between).toMatchObject({ kind: 'between', y: 10 });
    expect(between!.x).toBeCloseTo(120, 6);
    for (const frame of [9, 30, 51]) expect(pointsOnFrame(groups, frame, times)).toEqual([]);
  });

  it('that are worth placing depend on strike and view', () => {
    const cross = { technique: techniqueById('cross'), side: 'left' } as const;
    const hook = { technique: techniqueById('lead-hook'), side: 'left' } as const;
    expect(pointsToPlace(cross, 'side')).toEqual([
      'leftShoulder',
      'leftElbow',
      'leftWrist',
      'leftIndexKnuckle',
    ]);
    expect(pointsToPlace(cross, 'front')).toEqual(['leftShoulder', 'leftElbow']);
    expect(pointsToPlace(hook, 'side')).toEqual([]);
    expect(pointsToPlace(hook, 'above')).toHaveLength(7);
  });
});

it.each(TECHNIQUES)('every event of a $id has one place on the strip and a key', (technique) => {
  const own = lanesOf(technique).flatMap((lane) => lane.event ?? []);
  const placed = [...own, ...AXIS_EVENTS, 'contact'];
  expect([...placed].sort()).toEqual([...eventsOf(technique)].sort());
  EVENTS.forEach((event, index) => expect(EVENT_KEY[event]).toBe(index + 1));
});

it('a landmark of a limb has the lane of its link, in a kick another than in a punch', () => {
  const [punch, kick] = ['cross', 'round-kick'].map((id) => lanesOf(techniqueById(id)));
  expect(laneOf(punch!, 'leftLittleKnuckle')).toBe('fist');
  expect(laneOf(punch!, 'rightHeel')).toBe('feet');
  expect(laneOf(punch!, 'rightKnee')).toBe('knees');
  expect(laneOf(kick!, 'rightHeel')).toBe('foot');
  expect(laneOf(kick!, 'rightKnee')).toBe('thigh');
  expect(laneOf(punch!, 'nose')).toBeNull();
});

describe('the Floor', () => {
  const today = '2026-11-24';
  const person = (change: object = {}) => ({
    id: 'p',
    name: 'P',
    stance: 'orthodox' as const,
    grade: '',
    startedOn: '2026-07-24',
    heightM: null,
    massKg: null,
    bands: { kind: 'printed' as const, girths: { hips: null, ribs: null }, seam: 'front' as const },
    injuries: '',
    classGroup: '',
    bornOn: '1996-01-01',
    isMinor: false,
    isJunior: false,
    isArchived: false,
    school: {},
    consent: {
      id: 'c',
      givenBy: 'student' as const,
      name: 'P',
      givenOn: '2026-07-24',
      expiresOn: null,
    },
    ...change,
  });
  const film = (isToConfirm = false) => ({
    id: 'k',
    view: 'above' as const,
    isToConfirm,
    isSearched: false,
  });
  const cue = {
    id: 'q',
    studentId: 'p',
    technique: 'cross',
    text: 'Hips first.',
    drill: '',
    fault: 'all-at-once',
    evidence: '',
    strikeId: 's',
    clipId: 'k',
    updatedAt: '',
    isWorked: false,
    film: null,
  };
  const work = (nextCheck: string, sessions = 0) => ({
    name: 'Three-count',
    technique: 'cross',
    nextCheck,
    sessions,
    retest: null,
  });
  const rowsOf = (
    change: object,
    facts: Partial<FloorFacts> = {},
    { cues = [] as Cue[], hurting = [] as string[] } = {},
  ) =>
    floorRows({
      students: [person(change)],
      facts: new Map([['p', { ...NOTHING, ...facts }]]),
      cues,
      hurting: new Set(hurting),
      today,
    });

  it('names the one next thing for each student', () => {
    const next = (...given: Parameters<typeof rowsOf>) => rowsOf(...given)[0]?.next;
    expect(next({ consent: null, isMinor: true })).toMatchObject({
      text: 'Ask for consent',
      note: 'a guardian’s, before filming',
    });
    expect(next({})).toMatchObject({ text: 'First film' });
    expect(next({}, { clips: 1, open: [film()] })).toMatchObject({
      text: 'Mark the clip',
      note: 'filmed from above',
      href: '/bench/k',
    });
    expect(next({}, { clips: 2, open: [film(), film()] })).toMatchObject({ text: 'Mark 2 clips' });
    expect(next({}, { clips: 1, open: [film(true)] })).toMatchObject({ text: 'Confirm the clip' });
    expect(next({}, { clips: 2, open: [film(true), film()] })).toMatchObject({
      text: 'Mark 2 clips',
    });
    expect(next({}, { clips: 1 })).toMatchObject({ text: 'Film again', note: 'no leak open' });
    expect(next({}, { clips: 1 }, { cues: [cue] })).toMatchObject({ text: 'Give the work' });
    expect(next({}, { clips: 1, work: [work('2026-11-27')] })).toMatchObject({
      text: 'Three-count',
      note: 'film again in 3 days',
    });
    expect(next({ isArchived: true })).toBeUndefined();
  });

  it('lets a retest that is due go before films to be marked, and a hurt before both', () => {
    const facts = { clips: 1, open: [film()], work: [work('2026-11-22')] };
    expect(rowsOf({}, facts)[0]).toMatchObject({
      next: {
        text: 'Film again',
        note: 'due 2 days ago',
        href: '/capture?student=p&technique=cross&retest=1',
      },
      isDue: true,
    });
    expect(rowsOf({}, { clips: 1, work: [work('2026-12-01', 3)] })[0]!.next.note).toBe(
      'worked three times',
    );
    expect(rowsOf({}, facts, { hurting: ['p'] })[0]!.next.text).toBe('Slow only');
  });

  it('stands in the order in which the coach walks, one class at a time if wanted', () => {
    const students = ['Idle', 'Due', 'Busy'].map((name) => person({ id: name, name }));
    const facts = new Map([
      ['Due', { ...NOTHING, clips: 1, work: [work('2026-11-20')] }],
      ['Busy', { ...NOTHING, clips: 1, work: [work('2026-12-20')] }],
    ]);
    const rows = floorRows({ students, facts, cues: [], hurting: new Set(), today });
    expect(rows.map(({ name }) => name)).toEqual(['Due', 'Idle', 'Busy']);
  });

  it('is summed up in one sentence', () => {
    const headline = (open: FloorFacts['open']) => {
      const facts = new Map([['p', { ...NOTHING, clips: 1, open }]]);
      return floorHeadline(rowsOf({}, { clips: 1, open }), facts);
    };
    expect(headline([film()])).toBe('One student, one clip to mark.');
    const found = { ...film(), isToConfirm: true };
    expect(headline([found, found])).toBe('One student, two clips to confirm.');
    expect(headline([found, film()])).toBe('One student, one clip to confirm, one to mark.');
    expect(headline([])).toBe('One student, no clip waiting.');
    expect(rowsOf({}, {}, { cues: [cue] })[0]).toMatchObject({
      about: 'orthodox, 4 months',
      workingOn: 'Cross',
    });
  });

  it('says training time as one would', () => {
    const since = (day: string) => trainingTime(day, today);
    expect(['2026-11-20', '2026-10-05', '2025-11-01', '2021-01-01'].map(since)).toEqual([
      'new',
      '7 weeks',
      '13 months',
      '5 years',
    ]);
    expect(trainingTime(null, today)).toBeNull();
  });
});

describe('forms', () => {
  it('take numbers as people type them and say what is wrong in words', () => {
    const good = studentForm.parse({
      name: ' Ada ',
      stance: 'southpaw',
      bornOn: '1999-12-31',
      heightCm: '170,5',
      massKg: '',
    });
    expect(good).toMatchObject({
      name: 'Ada',
      heightCm: 170.5,
      massKg: null,
      bornOn: '1999-12-31',
    });
    const bad = studentForm.safeParse({
      name: '',
      stance: 'left',
      heightCm: 'tall',
      startedOn: '1.2.26',
    });
    const said = bad.error!.issues.map((issue) => issue.message);
    expect(said).toContain('Height: 80 to 250 cm.');
    expect(said).toContain('Write the day as year-month-day.');
    expect(
      consentForm.safeParse({ givenBy: 'student', name: 'A', givenOn: '2999-01-01' }).success,
    ).toBe(false);
  });
});

describe('requests', () => {
  const from = (headers: Record<string, string>) =>
    refuseForeign(new Request('http://127.0.0.1:4100/api', { headers }))?.status ?? 200;

  it('are answered from this machine’s own pages only', () => {
    const host = '127.0.0.1:4100';
    expect(from({ host })).toBe(200);
    expect(from({ host, origin: `http://${host}`, 'sec-fetch-site': 'same-origin' })).toBe(200);
    expect(from({ host, origin: 'http://elsewhere.invalid' })).toBe(403);
    expect(from({ host, 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(from({ host: 'pointed-here.invalid' })).toBe(403);
    expect(isOwnHost(new Request('http://x', { headers: { host: '[::1]:80' } }))).toBe(true);
  });
});
