/** What belongs to a take around its frames: survey, set-ups, the second view, strikes found. */
import { beforeEach, describe, expect, it } from 'vitest';
import {
  eventFrames,
  filmTimes,
  matSeen,
  offsetOf,
  placedIn,
} from '@sinew/fighters/film/takeTruth';
import { hitsOf, DEMO_TAKE, type TakeFilm } from '@sinew/fighters/film/takes';
import { hitsHeard } from '@sinew/fighters/trials/capture';
import { activityOf } from '@sinew/fighters/film/randomTake';
import { distanceTo } from '@sinew/fighters/film/takes';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import { CATALOGUE } from '@sinew/core/judge/fault/faults';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import type { SecondFilm } from '@sinew/core/analysis/clipFacts';
import { clipCalibration, cameraDistance } from '@sinew/core/analysis/clipCalibration';
import { loadBench, saveBench } from '@/data/bench/bench';
import {
  EMPTY_DOCUMENT,
  clipDocumentSchema,
  type ClipDocument,
  type StrikeDocument,
} from '@sinew/core/analysis/clipDocument';
import { cameraSetups, keepCameraSetup, removeCameraSetup } from '@/data/gym/cameraSetups';
import { addClip } from '@/data/clip/clips';
import { destroyClip } from '@/data/clip/clipEnds';
import { keepSurvey, surveyOf } from '@/data/clip/surveys';
import { joinClips, partClips, secondFilmOf, secondViewOf } from '@/data/clip/viewPairs';
import { refuseStrike, takeStrike } from '@/screens/bench/document/edits';
import { heartOf, isOpen, proposalsOf } from '@sinew/core/analysis/strikesFound';
import { joinByFrames, joinBySound } from '@/screens/bench/document/secondView';
import { strikesIn, surveySchema, takeOf, type Survey } from '@sinew/core/observe/take/survey';
import { emptyGym, film, markedClip, newClip, student, type TestGym } from './support';

let gym: TestGym;
beforeEach(async () => {
  gym = await emptyGym();
});

const [side, front] = DEMO_TAKE.films as [TakeFilm, TakeFilm];
const facts = (one: TakeFilm) => ({
  width: 1280,
  height: 720,
  frameTimes: filmTimes(DEMO_TAKE, one),
});

/** A survey of one of the demo's films, its pictures left out. */
function surveyed(one: TakeFilm): Survey {
  const { times, amounts } = activityOf(DEMO_TAKE, one, 1);
  return surveySchema.parse({
    width: 1280,
    height: 720,
    repeated: 0,
    shake: null,
    hasSound: true,
    breaths: [],
    amounts: amounts.map((amount, i) => (i === 0 ? 0 : amount * (times[i]! - times[i - 1]!))),
    light: { middle: 120, contrast: 130, black: 0, white: 0 },
    edges: { moving: null, still: 3 },
    moved: { left: 0.2, right: 0.7, top: 0.2, bottom: 0.8 },
    hits: hitsHeard(DEMO_TAKE, one),
  });
}

function benchOf(one: TakeFilm, view: 'side' | 'front', every = 2): ClipDocument {
  const frames = eventFrames(DEMO_TAKE, one, 1);
  const wanted: number[] = [];
  for (let frame = frames.ready; frame < frames.home; frame += every) wanted.push(frame);
  wanted.push(frames.home);
  const mat = matSeen(DEMO_TAKE, one);
  return clipDocumentSchema.parse({
    ...EMPTY_DOCUMENT,
    view,
    rectangle: { ...mat, corners: [...mat.corners] },
    placed: placedIn(DEMO_TAKE, one, wanted),
  });
}

const strikeOn = (one: TakeFilm): StrikeDocument => {
  const frames = eventFrames(DEMO_TAKE, one, 1);
  return {
    id: 's',
    technique: 'cross',
    side: 'right' as const,
    span: { from: frames.ready, to: frames.home },
    marks: Object.fromEntries(
      Object.entries(frames).map(([event, frame]) => [event, { frame, width: 1 }]),
    ),
  };
};

const LIBRARY = { catalogue: CATALOGUE, school: {} };

describe('a survey', () => {
  it('is kept with its clip, replaced by a later one, and gone with it', async () => {
    const { clipId } = await markedClip(gym, await student(gym));
    expect(await surveyOf(gym.db, clipId)).toBeNull();
    const own = { ...surveyed(side), amounts: Array.from({ length: 279 }, () => 0.001) };
    expect(await keepSurvey(gym.db, clipId, own)).toBe(true);
    expect(await keepSurvey(gym.db, clipId, { ...own, repeated: 3 })).toBe(true);
    expect((await surveyOf(gym.db, clipId))!.repeated).toBe(3);
    await destroyClip(gym.db, gym.files, clipId);
    expect(await surveyOf(gym.db, clipId)).toBeNull();
  });

  it('of another film is refused', async () => {
    const { clipId } = await markedClip(gym, await student(gym));
    expect(await keepSurvey(gym.db, clipId, surveyed(side))).toBe(false);
    expect(await keepSurvey(gym.db, 'none', surveyed(side))).toBe(false);
  });

  it('of a slow-motion file is laid over real time', () => {
    const survey = surveyed(side);
    // Shot at 120 and played at 30: everything in the file takes four times as long.
    const stretched = {
      ...survey,
      hits: survey.hits.map((hit) => ({ ...hit, time: 0.5 + 4 * hit.time })),
    };
    const fileTimes = facts(side).frameTimes.map((time) => 0.5 + 4 * time);
    const slow = takeOf(stretched, fileTimes, 120);
    const plain = takeOf(survey, facts(side).frameTimes, null);
    slow.hits.forEach((hit, i) => expect(hit.time).toBeCloseTo(plain.hits[i]!.time, 6));
    expect(slow.footage.rate.perSecond).toBeCloseTo(120, 3);
    slow.activity.amounts.forEach((amount, i) =>
      expect(amount).toBeCloseTo(plain.activity.amounts[i]!, 6),
    );
  });
});

describe('strikes found on the bench', () => {
  const { times } = activityOf(DEMO_TAKE, side, 1);
  const distance = distanceTo(side, hitsOf(DEMO_TAKE)[0]!);
  const found = proposalsOf(strikesIn(takeOf(surveyed(side), times, null), distance), times);
  const id = (n: number) => ({ id: `s${n}`, technique: 'cross', side: 'right' as const });

  it('stand on the frames of their contacts, the last two in one combination', () => {
    const truth = hitsOf(DEMO_TAKE).map(({ time }) => Math.round(time * 120));
    found.forEach(({ contact }, i) => {
      expect(Math.abs(contact!.frame - truth[i]!)).toBeLessThanOrEqual(1);
    });
    const [a, b, c, d] = found.map((one) => one.combination);
    expect([a, b]).toEqual([null, null]);
    expect(c).not.toBeNull();
    expect(d).toBe(c);
  });

  it('are open until they are taken or refused, one by one', () => {
    const left = (document: ClipDocument) =>
      found.filter((one) => isOpen(one, document, found.length)).map((one) => one.number);
    expect(left(EMPTY_DOCUMENT)).toEqual([1, 2, 3, 4]);
    const third = takeStrike(EMPTY_DOCUMENT, id(3), found[2]!);
    expect(left(third)).toEqual([1, 2, 4]);
    const first = takeStrike(third, id(1), found[0]!);
    expect(first.strikes.map((one) => one.id)).toEqual(['s1', 's3']);
    expect(first.strikes[0]!.marks.contact!.frame).toBe(heartOf(found[0]!));
    const rest = refuseStrike(refuseStrike(first, found[1]!), found[3]!);
    expect(left(rest)).toEqual([]);
    expect(left({ ...rest, refused: [] })).toEqual([2, 4]);
  });

  it('are not asked about where a strike was marked by hand', () => {
    const marked: ClipDocument = {
      ...EMPTY_DOCUMENT,
      strikes: [{ ...id(1), marks: { contact: { frame: heartOf(found[1]!), width: 1 } } }],
    };
    expect(found.map((one) => isOpen(one, marked, found.length))).toEqual([
      true,
      false,
      true,
      true,
    ]);
    // A clip of one strike that was named by hand is that strike's.
    const named: ClipDocument = { ...EMPTY_DOCUMENT, strikes: [{ ...id(1), marks: {} }] };
    expect(isOpen(found[0]!, named, 1)).toBe(false);
  });
});

describe('a camera set-up', () => {
  const { view, scale, target, rectangle, lens } = benchOf(side, 'side');
  const calibration = { view, scale, target, rectangle, lens };

  it('is kept by its name, replaced under the same one, and forgotten', async () => {
    const setup = { name: 'By the racks', width: 1280, height: 720, calibration };
    await keepCameraSetup(gym.db, setup);
    await keepCameraSetup(gym.db, {
      ...setup,
      calibration: { ...calibration, lens: { bend: 0.1 } },
    });
    const [kept, ...more] = await cameraSetups(gym.db);
    expect(more).toEqual([]);
    expect(kept).toMatchObject({ name: 'By the racks', calibration: { lens: { bend: 0.1 } } });
    expect(kept!.calibration.rectangle).toEqual(rectangle);
    await removeCameraSetup(gym.db, kept!.id);
    expect(await cameraSetups(gym.db)).toEqual([]);
  });

  it('with a rectangle on the floor tells how far the bag is', () => {
    const truth = distanceTo(side, hitsOf(DEMO_TAKE)[0]!);
    expect(
      Math.abs(cameraDistance(calibration, { width: 1280, height: 720 })! - truth),
    ).toBeLessThan(0.4);
    expect(
      cameraDistance({ ...calibration, rectangle: null }, { width: 1280, height: 720 }),
    ).toBeNull();
  });

  it('whose rectangle fixes nothing is read without it, with the reason', () => {
    const corners = [0, 1, 2, 3].map((i) => ({ x: 100 * i, y: 100 * i }));
    const flat = { ...calibration, rectangle: { ...rectangle!, corners } };
    const read = clipCalibration(flat, { width: 1280, height: 720 });
    expect(read.problem).toMatch(/\w/);
    expect(read.calibration.rectangle).toBeNull();
  });
});

describe('two clips of one take', () => {
  const offset = { seconds: 0.25, sigma: 0.001, by: 'sound', pairs: 3 } as const;

  async function pair() {
    const who = await student(gym);
    const ids: string[] = [];
    for (const name of ['take-side.mp4', 'take-front.mp4', 'cross-clean.mp4']) {
      ids.push((await addClip(gym.db, gym.files, newClip(who, film(name)))).id);
    }
    return ids as [string, string, string];
  }

  it('are joined both ways, with the offset turned around', async () => {
    const [a, b] = await pair();
    expect(await joinClips(gym.db, a, b, offset)).toBe(true);
    expect((await secondViewOf(gym.db, a))!).toMatchObject({ clip: { id: b }, offset });
    expect((await secondViewOf(gym.db, b))!.offset.seconds).toBe(-0.25);
    await partClips(gym.db, b);
    expect(await secondViewOf(gym.db, a)).toBeNull();
  });

  it('are parted from whatever they were joined with before, and by deleting one', async () => {
    const [a, b, c] = await pair();
    await joinClips(gym.db, a, b, offset);
    await joinClips(gym.db, c, a, offset);
    expect(await secondViewOf(gym.db, b)).toBeNull();
    expect((await secondViewOf(gym.db, a))!.clip.id).toBe(c);
    await destroyClip(gym.db, gym.files, c);
    expect(await secondViewOf(gym.db, a)).toBeNull();
  });

  it('of two students, or one alone, are not joined', async () => {
    const [a] = await pair();
    const { clipId } = await markedClip(gym, await student(gym));
    expect(await joinClips(gym.db, a, clipId, offset)).toBe(false);
    expect(await joinClips(gym.db, a, a, offset)).toBe(false);
    expect(await joinClips(gym.db, a, 'none', offset)).toBe(false);
  });

  it('find their offset by what both have heard, surer where both cameras’ places are known', () => {
    const truth = side.starts - front.starts;
    const [a, b] = [
      { film: facts(side), document: benchOf(side, 'side'), survey: surveyed(side) },
      { film: facts(front), document: benchOf(front, 'front'), survey: surveyed(front) },
    ];
    const known = joinBySound(a!, b!);
    const unknown = joinBySound(
      { ...a!, document: { ...a!.document, rectangle: null } },
      { ...b!, document: { ...b!.document, rectangle: null } },
    );
    if ('problem' in known || 'problem' in unknown) throw new Error('not joined');
    for (const one of [known, unknown]) {
      expect(Math.abs(one.seconds - truth)).toBeLessThan(1.96 * one.sigma);
    }
    expect(known.sigma).toBeLessThan(unknown.sigma / 2);
    const mute = joinBySound(a!, { ...b!, survey: { ...b!.survey, hits: [] } });
    expect(mute).toEqual({ problem: expect.stringMatching(/No hit is heard/) });
  });

  it('find it by an instant seen in both, to the width of the frames', () => {
    const frames = [side, front].map((one) => eventFrames(DEMO_TAKE, one, 1).contact);
    const found = joinByFrames(
      { film: facts(side), document: EMPTY_DOCUMENT, frame: frames[0]! },
      { film: facts(front), document: EMPTY_DOCUMENT, frame: frames[1]! },
    );
    expect(Math.abs(found.seconds - (side.starts - front.starts))).toBeLessThan(1 / 120);
    // Two frames, each known to its own width: √2 · (1/120) / √12 (GUM 4.3.7).
    expect(found.sigma).toBeCloseTo(Math.SQRT2 / 120 / Math.sqrt(12), 6);
  });

  it('measure a strike in space, and what only one shows as before', () => {
    const second: SecondFilm = {
      document: benchOf(front, 'front'),
      film: facts(front),
      offset: offsetOf(DEMO_TAKE),
    };
    const body = { stance: 'orthodox', school: {}, heightM: 1.76, massKg: 68 } as const;
    const one = benchOf(side, 'side');
    const clip = { document: one, film: facts(side), student: body, second: null };
    const alone = analyzeClip(clip, strikeOn(side), LIBRARY);
    const both = analyzeClip({ ...clip, second }, strikeOn(side), LIBRARY);
    expect(alone.space).toBeNull();
    expect(isAbsent(alone.readings['turn.pelvis'])).toBe(true);
    expect(both.space).toMatchObject({ landmarks: 23, disagreements: [] });
    const truth = truthOfStrike(DEMO_TAKE.strikes[1]!.recipe);
    for (const id of ['turn.pelvis', 'turn.trunk', 'separation.max', 'speed.contact'] as const) {
      const found = both.readings[id];
      if (isAbsent(found)) throw new Error(`${id}: ${found.absent}`);
      expect(found.source, id).toBe('measured-3d');
      expect(Math.abs(found.value - truth.values[id]!), id).toBeLessThan(halfWidth(found));
    }
    // The dip is read from the side view's own plane when the joined track does not give it.
    const shown = (readings: typeof both.readings) =>
      Object.values(readings).filter((reading) => !isAbsent(reading)).length;
    expect(shown(both.readings)).toBeGreaterThan(shown(alone.readings));
  });

  it('say what is missing where they cannot measure together', () => {
    const bare = { ...benchOf(front, 'front'), rectangle: null };
    const offsetKnown = offsetOf(DEMO_TAKE);
    const body = { stance: 'orthodox', school: {}, heightM: 1.76, massKg: 68 } as const;
    const second = { document: bare, film: facts(front), offset: offsetKnown };
    const { space } = analyzeClip(
      { document: benchOf(side, 'side'), film: facts(side), student: body, second },
      strikeOn(side),
      LIBRARY,
    );
    expect(space).toEqual({ problem: expect.stringMatching(/in the other film it is missing/) });
  });

  it('are judged from both sides on the server as well', async () => {
    const [a, b] = await pair();
    for (const [id, one, view] of [
      [a, side, 'side'],
      [b, front, 'front'],
    ] as const) {
      const saved = (await loadBench(gym.db, id))!;
      const document = { ...benchOf(one, view), strikes: [{ ...strikeOn(one), id: `s-${id}` }] };
      await saveBench(gym.db, id, { revision: saved.revision, document });
    }
    await joinClips(gym.db, a, b, offsetOf(DEMO_TAKE));
    const second = await secondFilmOf(gym.db, a);
    expect(second!.document.placed.length).toBeGreaterThan(500);
    expect(second!.film.frameTimes).toHaveLength(filmTimes(DEMO_TAKE, front).length);
  });
});
