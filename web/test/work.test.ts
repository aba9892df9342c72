/** Faults that become work, the gate, what is logged, the card, on a database. */
import { beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { measureStudent } from '@/data/finding/measured';
import { faultById } from '@sinew/core/judge/fault/faults';
import { NO_POWER_UNDER_16 } from '@sinew/core/train/work/condition';
import { cardOf } from '@/data/finding/card';
import { acceptFinding } from '@/data/finding/findings';
import { floorFacts } from '@/data/gym/floor';
import { saveSettings } from '@/data/gym/gym';
import { closeFault, hurtingStudents, studentFaultsOf } from '@/data/finding/studentFaults';
import { setBirthDate } from '@/data/student/students';
import { today } from '@/data/database/today';
import { setTrashed, trash } from '@/data/maintenance/trash';
import {
  endPrescription,
  overrideGate,
  prescribe,
  workOf,
  type PrescriptionInput,
} from '@/data/work/work';
import { logWork, type LogInput } from '@/data/work/drillLog';
import { USUAL_MANNER } from '@/manner/manner';
import { markedClip, markedGym, type TestGym, type MarkedClip } from './support';

let gym: TestGym;
let who: string;
let marked: MarkedClip;
beforeEach(async () => {
  ({ gym, who, marked } = await markedGym());
});

const accept = (fault = 'all-at-once') => acceptFinding(gym.db, marked.strikeId, fault, false);
const work = async () => (await workOf(gym.db, who))!;
const FAULT = { technique: 'cross', fault: 'all-at-once' };

async function give(change: Partial<PrescriptionInput> = {}) {
  const proposal = (await work()).proposals[0]!;
  return prescribe(gym.db, {
    ...proposal.prescription,
    studentId: who,
    worksOn: FAULT,
    override: '',
    ...change,
  });
}

describe('a student under 16', () => {
  beforeEach(async () => {
    const bornOn = `${Number(today().slice(0, 4)) - 15}${today().slice(4)}`;
    await setBirthDate(gym.db, who, bornOn);
  });

  it('gets no work at full power, with whatever reason', async () => {
    await accept();
    const outcome = await give({ intent: 'power', override: 'a tournament' });
    expect(outcome).toEqual({ kind: 'refused', reason: NO_POWER_UNDER_16 });
    const input = { studentId: who, technique: 'cross', to: 'power', reason: 'x' } as const;
    expect(await overrideGate(gym.db, input)).toBe(NO_POWER_UNDER_16);
    expect(await overrideGate(gym.db, { ...input, to: 'full' })).toBeNull();
  });
});

let logs = 0;
const set = (change: Partial<LogInput> = {}): LogInput => ({
  id: `log-${logs++}`,
  studentId: who,
  prescriptionId: null,
  technique: 'cross',
  name: 'Three-count',
  day: today(),
  intent: 'slow',
  strikes: 10,
  seconds: 0,
  clean: null,
  countedBy: 'tap',
  ...change,
});
const level = async () => (await work()).gates.find((one) => one.technique === 'cross')?.gate.level;

describe('a leak that has been accepted', () => {
  it('becomes work in one action, filled in from the catalogue', async () => {
    await accept();
    const before = await work();
    expect(before.proposals).toHaveLength(1);
    const outcome = await give();
    expect(outcome.kind).toBe('given');
    const { given, proposals } = await work();
    expect(proposals).toEqual([]);
    expect(given[0]).toMatchObject({
      name: 'Slow three-count: hips, trunk, hand',
      dose: '3 × 8, counted aloud',
      intent: 'slow',
      nextCheck: plusDays(today(), 7),
      sessions: 0,
      check: { isDue: false },
    });
  });

  it('is filmed again after three days of work', async () => {
    await accept();
    await give();
    const { id } = (await work()).given[0]!;
    for (const days of [3, 2, 2, 0]) {
      await logWork(gym.db, set({ prescriptionId: id, day: plusDays(today(), -days) }));
    }
    expect((await work()).given[0]).toMatchObject({
      sessions: 3,
      check: { isDue: true, because: 'sessions' },
      doneToday: { strikes: 10 },
    });
    expect((await floorFacts(gym.db)).get(who)!.work[0]).toMatchObject({ sessions: 3 });
    await endPrescription(gym.db, id, 'done');
    expect((await work()).given).toEqual([]);
  });

  it('is opened, in work and closed with its dates and the reason', async () => {
    await accept();
    expect((await studentFaultsOf(gym.db, who))[0]).toMatchObject({ ...FAULT, state: 'working' });
    await give();
    await closeFault(gym.db, { studentId: who, ...FAULT }, 'three clean films');
    expect((await studentFaultsOf(gym.db, who))[0]).toMatchObject({
      state: 'closed',
      closedBecause: 'three clean films',
    });
    expect(await work()).toMatchObject({ given: [], proposals: [] });
  });
});

describe('the gate', () => {
  it('opens with clean sets and refuses what is too fast, unless the coach says why', async () => {
    await accept();
    expect(await give({ intent: 'full' })).toMatchObject({ kind: 'asks-why' });
    expect(await give({ intent: 'full', override: 'a guest of ten years' })).toMatchObject({
      kind: 'given',
    });
    for (const clean of [9, 8, 10]) await logWork(gym.db, set({ clean }));
    expect(await level()).toBe('tempo');
    await overrideGate(gym.db, { studentId: who, technique: 'cross', to: 'power', reason: 'x' });
    expect(await level()).toBe('power');
  });

  it('waits for the grade that the gym asks', async () => {
    await saveSettings(gym.db, {
      name: 'Gym',
      className: '',
      grades: ['white', 'blue'],
      from: { tempo: 'blue' },
      sessions: [],
      manner: USUAL_MANNER,
    });
    await accept();
    for (let i = 0; i < 3; i++) await logWork(gym.db, set({ clean: 10 }));
    const { gate } = (await work()).gates[0]!;
    expect(gate.level).toBe('slow');
    expect(gate.shut).toMatch(/from blue on/);
  });

  it('is shut by what can hurt: no reason opens it, only the coach’s clearing does', async () => {
    await accept();
    const hurting = faultById('hyperextension')!;
    expect(hurting.injury).toBe(true);
    await measureStudent(gym.db, who);
    await gym.db
      .updateTable('measured')
      .set({ shows: JSON.stringify({ found: [hurting.id], clear: [] }) })
      .execute();
    await overrideGate(gym.db, { studentId: who, technique: 'cross', to: 'power', reason: 'x' });
    expect(await level()).toBe('slow');
    expect((await work()).injuries[0]).toMatchObject({ fault: hurting.id, name: hurting.name });
    expect(await give({ intent: 'power', override: 'please' })).toMatchObject({ kind: 'refused' });
    const fault = { studentId: who, technique: 'cross', fault: hurting.id };
    await closeFault(gym.db, fault, 'looked at it together');
    expect((await work()).injuries).toEqual([]);
  });

  it('knows on the Floor of an accepted leak that can hurt', async () => {
    expect([...(await hurtingStudents(gym.db))]).toEqual([]);
    await accept();
    await gym.db.updateTable('finding').set({ fault: 'hyperextension' }).execute();
    expect([...(await hurtingStudents(gym.db))]).toEqual([who]);
    const fault = { studentId: who, technique: 'cross', fault: 'hyperextension' };
    await closeFault(gym.db, fault, 'cleared');
    expect([...(await hurtingStudents(gym.db))]).toEqual([]);
  });
});

describe('a log', () => {
  it('sent twice is kept once; nonsense is refused in words', async () => {
    const once = set();
    expect(await logWork(gym.db, once)).toBeNull();
    expect(await logWork(gym.db, once)).toBeNull();
    expect((await work()).volume.weeks[4]!.strikes).toBe(10);
    expect(await logWork(gym.db, set({ clean: 11 }))).toMatch(/No more strikes can be clean/);
    expect(await logWork(gym.db, set({ strikes: 0 }))).toMatch(/Nothing was counted/);
    expect(await logWork(gym.db, set({ studentId: 'gone' }))).toMatch(/not in the list/);
  });

  it('taken out can be brought back', async () => {
    await logWork(gym.db, set({ id: 'wrong' }));
    await setTrashed(gym.db, 'log', 'wrong', true);
    expect((await work()).logs).toEqual([]);
    expect(await trash(gym.db)).toMatchObject([{ kind: 'log', id: 'wrong' }]);
    await setTrashed(gym.db, 'log', 'wrong', false);
    expect((await work()).logs).toHaveLength(1);
  });
});

describe('a card', () => {
  it('has the cue, the number then, the picture’s frame, the work and a box for each day', async () => {
    await accept();
    await give();
    const [cue] = (await cardOf(gym.db, who))!.cues;
    expect(cue).toMatchObject({
      fault: 'All at once',
      isInjury: false,
      picture: { span: { names: ['hips start', 'trunk starts'], seconds: 0 } },
      number: { now: null, verdict: null },
    });
    expect(cue!.number!.then).toMatch(/^0 ± 3(\.\d)? ms$/);
    expect(cue!.days).toHaveLength(7);
    expect(cue!.work[0]!.name).toMatch(/three-count/);
  });

  it('says at least, where a part stood for the whole', async () => {
    await accept();
    const limit = { reading: 'head', partly: 'head.seen', is: 'above', value: 0.1 } as const;
    const rest = { slack: 0, strays: 0, onlyClears: false };
    const measured = { value: 0.14, unit: 'm', sigma: 0.01, source: 'measured-2d', frames: [] };
    await gym.db
      .updateTable('finding')
      .set({ judged_by: JSON.stringify([{ limit: { ...limit, ...rest }, measured }]) })
      .where('fault', '=', 'all-at-once')
      .execute();
    expect((await cardOf(gym.db, who))!.cues[0]!.number!.then).toBe('at least 14 ± 2 cm');
  });

  it('holds a later film against it, or says why that cannot be', async () => {
    await accept();
    const later = await markedClip(gym, who, 'cross-all-at-once.mp4');
    await gym.db
      .updateTable('clip')
      .set({ created_at: '2099-01-01T00:00:00.000Z' })
      .where('id', '=', later.clipId)
      .execute();
    expect((await cardOf(gym.db, who))!.cues[0]!.number).toMatchObject({ verdict: 'noise' });
    await gym.db
      .updateTable('clip')
      .set({ view: 'above' })
      .where('id', '=', later.clipId)
      .execute();
    expect((await cardOf(gym.db, who))!.cues[0]!.number).toMatchObject({
      why: 'one was filmed from the side, one from above',
    });
  });
});
