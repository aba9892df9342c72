import type { Finding } from '@sinew/core/judge/fault/finding';
import { beforeEach, describe, expect, it } from 'vitest';
import { CATALOGUE } from '@sinew/core/judge/fault/faults';
import { readTrc, writeTrc } from '@sinew/core/format/trc';
import { spaceTrack } from '@sinew/core/format/series';
import { NO_EDITS } from '@sinew/core/judge/library/edits';
import { loadBench, saveBench } from '@/data/bench/bench';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import { EMPTY_DOCUMENT, type StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { acceptFinding, activeCues, decisionsOf, putAside } from '@/data/finding/findings';
import { findingOf, setReport } from '@/data/finding/judging';
import {
  changeLibrary,
  editsOf,
  libraryHistory,
  libraryOf,
  setStudentSchool,
} from '@/data/gym/library';
import { studentById } from '@/data/student/students';
import { analyzeFile } from '../../cli/src/analyzeFile';
import { clean, FAULT_CHANGES } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { emptyGym, markedClip, student, type TestGym } from './support';

let gym: TestGym;
let who: string;
beforeEach(async () => {
  gym = await emptyGym();
  who = await student(gym);
});

const limit = (value: number) =>
  ({ kind: 'limit', fault: 'slow-home', limit: 'usual/recoil', value }) as const;

describe('the library', () => {
  it('is the catalogue until it is changed, then keeps the change and who made it', async () => {
    expect((await libraryOf(gym.db)).catalogue).toEqual(CATALOGUE);
    await changeLibrary(gym.db, 'Hedda', limit(0.9));
    expect(await editsOf(gym.db)).toMatchObject({ faults: { 'slow-home': { limits: {} } } });
    const [entry] = await libraryHistory(gym.db);
    expect(entry).toMatchObject({
      by: 'Hedda',
      what: 'Slow home: limit',
      before: '120 %',
      after: '90 %',
    });
  });

  it('changes nothing, and writes no history, when a change does not fit', async () => {
    const wrong = { kind: 'drill-of', fault: 'slap', drill: 'no-such' } as const;
    await expect(changeLibrary(gym.db, 'Hedda', wrong)).rejects.toThrow();
    expect(await editsOf(gym.db)).toEqual(NO_EDITS);
    expect(await libraryHistory(gym.db)).toEqual([]);
  });

  it('judges what is kept: a cue comes from the gym’s own words', async () => {
    const { strikeId } = await markedClip(gym, who);
    const accepted = () => acceptFinding(gym.db, strikeId, 'all-at-once', false);
    await changeLibrary(gym.db, 'Hedda', { kind: 'off', fault: 'all-at-once', isOff: true });
    expect(await accepted()).toEqual({ kind: 'not-found' });
    await changeLibrary(gym.db, 'Hedda', { kind: 'off', fault: 'all-at-once', isOff: false });
    const text = 'Buckle first.';
    await changeLibrary(gym.db, 'Hedda', { kind: 'cue', fault: 'all-at-once', text });
    await changeLibrary(gym.db, 'Hedda', { kind: 'drill-of', fault: 'all-at-once', drill: 'echo' });
    expect(await accepted()).toEqual({ kind: 'accepted' });
    const [cue] = await activeCues(gym.db, who);
    expect(cue!.text).toBe('Buckle first.');
    expect(cue!.drill).toMatch(/^Echo drill.*: 3 × 8$/);
    const row = await gym.db.selectFrom('finding').selectAll().executeTakeFirstOrThrow();
    // A side view does not show the turn that the model needs, and the finding says so.
    expect(JSON.parse(row.cost!)).toHaveProperty('unknown');
  });
});

describe('a strike', () => {
  it('keeps its school, situation, range and what the eye says', async () => {
    const { clipId, document } = await markedClip(gym, who);
    const said: Partial<StrikeDocument> = {
      school: { finish: 'dig' },
      situation: 'lined-up',
      range: 'long',
      audit: { knuckles: 'drags', breath: 'neutral' },
    };
    const strikes = document.strikes.map((strike) => ({ ...strike, ...said }));
    await saveBench(gym.db, clipId, { revision: 1, document: { ...document, strikes } });
    expect((await loadBench(gym.db, clipId))!.document.strikes[0]).toMatchObject(said);
    const { strikeId } = { strikeId: strikes[0]!.id };
    expect(await acceptFinding(gym.db, strikeId, 'wrong-knuckles', false)).toEqual({
      kind: 'accepted',
    });
  });

  it('is judged by its student’s school where it has none of its own', async () => {
    await setStudentSchool(gym.db, who, { finish: 'dig' });
    expect((await studentById(gym.db, who))!.school).toEqual({ finish: 'dig' });
    await expect(setStudentSchool(gym.db, who, { finish: 'poke' })).rejects.toThrow();
  });

  it('left for later is open no more, and closes its cue', async () => {
    const { clipId, strikeId } = await markedClip(gym, who);
    await acceptFinding(gym.db, strikeId, 'all-at-once', false);
    expect(await putAside(gym.db, strikeId, 'all-at-once', 'later', '')).toBe(true);
    expect(await activeCues(gym.db, who)).toEqual([]);
    expect((await decisionsOf(gym.db, clipId))[strikeId]).toMatchObject([{ status: 'later' }]);
  });
});

describe('a set', () => {
  it('is every strike of the kind in the clip, and its cue says in how many it shows', async () => {
    const { clipId, strikeId, document } = await markedClip(gym, who);
    const [first] = document.strikes;
    const strikes: StrikeDocument[] = [
      first!,
      { ...first!, id: 'second' },
      { ...first!, id: 'third' },
      { ...first!, id: 'jab', technique: 'jab', side: 'left' },
    ];
    await saveBench(gym.db, clipId, { revision: 1, document: { ...document, strikes } });
    const report = (await setReport(gym.db, strikeId))!;
    expect(report.isProvisional).toBe(false);
    expect(report.strikes.map(({ id }) => id)).toEqual([strikeId, 'second', 'third']);
    const finding = report.findings.find(({ fault }) => fault === 'all-at-once')!;
    expect(finding).toMatchObject({ status: 'found', shows: 3, of: 3 });
    const found = findingOf(gym.db, strikeId, 'all-at-once', 'set');
    await acceptFinding(gym.db, strikeId, 'all-at-once', false, found);
    expect((await activeCues(gym.db, who))[0]!.evidence).toMatch(/^In 3 of 3, by the median\./);
    expect(await setReport(gym.db, 'no-such')).toBeNull();
  });
});

it('the command line gives the same findings as the app for the same file', () => {
  const recipe = clean('cross', { ...FAULT_CHANGES.jammed, recoil: 1.7, guardDrop: 0.2 });
  const text = writeTrc(knownTrack(recipe, { rate: 240, noise: 0.002, seed: 5 }), 'a.trc');
  const told = analyzeFile('a.trc', text, {
    technique: 'cross',
    stance: 'orthodox',
    mass: 70,
    height: 1.76,
    school: [],
  }).analysis;
  const track = spaceTrack(readTrc(text));
  const first = track.frameTimes[0]!;
  const frameTimes = track.frameTimes.map((time) => time - first);
  const strike: StrikeDocument = { id: 'a', technique: 'cross', side: 'right', marks: {} };
  const student = { stance: 'orthodox', school: {}, heightM: 1.76, massKg: 70 } as const;
  const series = { fileName: 'a.trc', begins: 0, track: { ...track, frameTimes } };
  const film = { frameTimes, width: 1280, height: 720, series };
  const document = { ...EMPTY_DOCUMENT, strikes: [strike] };
  const library = { catalogue: CATALOGUE, school: {} };
  const { findings } = analyzeClip({ document, film, student, second: null }, strike, library);
  const plain = (all: readonly Finding[]) =>
    all.map(({ fault, status, evidence, cost }) => ({ fault, status, evidence, cost }));
  expect(plain(findings)).toEqual(plain(told.findings));
  expect(findings.filter(({ status }) => status === 'found').map(({ fault }) => fault)).toEqual(
    expect.arrayContaining(['jammed', 'slow-home', 'guard-off-drop']),
  );
});
