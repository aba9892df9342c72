/** What hurts, on a database: it shuts gate and work until the coach says that it is over. */
import { beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { fromDrill } from '@sinew/core/train/work/prescription';
import { DRILLS, drillById } from '@sinew/core/foundation/drill/drills';
import { leavesOut, SOUND } from '@sinew/core/train/work/condition';
import { today } from '@/data/database/today';
import { hurtingStudents } from '@/data/finding/studentFaults';
import { endHurt, noteHurt, openHurts } from '@/data/student/hurtNotes';
import { conditions } from '@/data/work/conditions';
import { logWork } from '@/data/work/drillLog';
import { overrideGate, prescribe, workOf, type PrescriptionInput } from '@/data/work/work';
import { endHurtOf, noteHurtOf } from '@/screens/student/hurtActions';
import { markedGym, type TestGym } from './support';

let gym: TestGym;
let who: string;
beforeEach(async () => {
  ({ gym, who } = await markedGym());
});

const note = (place: 'head' | 'knee' | 'neck-back' = 'head', id = 'note-1') =>
  noteHurt(gym.db, { id, studentId: who, day: today(), place, words: 'the bag swung back' });
const give = (drill: string, change: Partial<PrescriptionInput> = {}) =>
  prescribe(gym.db, {
    ...fromDrill(drillById(drill)!, today()),
    studentId: who,
    worksOn: null,
    override: '',
    ...change,
  });

describe('a note that something hurts', () => {
  it('is kept once however often it is sent, and stands with the student until it is over', async () => {
    await note();
    await note();
    expect(await openHurts(gym.db, who)).toMatchObject([{ place: 'head', day: today() }]);
    expect((await hurtingStudents(gym.db)).has(who)).toBe(true);
    expect((await conditions(gym.db)).get(who)!.hurts).toHaveLength(1);
    await endHurt(gym.db, 'note-1', 'cleared by her doctor');
    expect(await openHurts(gym.db)).toEqual([]);
    expect((await hurtingStudents(gym.db)).has(who)).toBe(false);
  });

  it('shuts the gate, even one that was set by hand, and opens it where it stood', async () => {
    const technique = 'cross';
    await overrideGate(gym.db, { studentId: who, technique, to: 'full', reason: 'ten years' });
    await note();
    const level = async () => (await workOf(gym.db, who))!.gates[0]!.gate;
    expect(await level()).toMatchObject({ level: 'slow', isShutByInjury: true });
    await endHurt(gym.db, 'note-1', 'cleared');
    expect(await level()).toMatchObject({ level: 'full' });
  });

  it('refuses work that it speaks against, with whatever reason', async () => {
    await note('knee');
    const override = 'a tournament';
    expect(await give('paper-foot', { override })).toMatchObject({
      kind: 'refused',
      reason: expect.stringContaining('no foot pressed flat') as string,
    });
    expect(await give('wall-side', { intent: 'full', override })).toMatchObject({
      kind: 'refused',
      reason: expect.stringContaining('Slow only') as string,
    });
    expect(await give('wall-side')).toMatchObject({ kind: 'given' });
  });

  it('asks by the actions for a student there is, and for a reason that ends it', async () => {
    const wrong = { id: 'x', studentId: 'nobody', day: today(), place: 'head', words: '' } as const;
    expect(await noteHurtOf(wrong)).toMatch(/not in the list/);
    expect(await noteHurtOf({ ...wrong, day: 'today' })).toMatch(/./);
    expect(await endHurtOf('x', '  ')).toMatch(/^Why\?/);
  });
});

describe('what a student without a grade or under 16 leaves out', () => {
  it('asks for a reason where only the grade is missing', async () => {
    const before = (await conditions(gym.db)).get(who)!;
    expect(before).toMatchObject({ grade: '' });
    expect(await give('wall-side', { intent: 'power' })).toMatchObject({
      kind: 'asks-why',
      reasons: [expect.stringContaining('no grade') as string],
    });
    expect(await give('wall-side', { intent: 'power', override: 'ten years' })).toMatchObject({
      kind: 'given',
    });
  });

  it('is nothing of a drill that comes with Sinew, done slowly, by somebody sound', () => {
    for (const { asks, id } of DRILLS) {
      expect(leavesOut({ intent: 'slow', asks }, { ...SOUND, isJunior: true }), id).toBeNull();
    }
  });
});

it('a new drill is given at a third, and grows while it is worked', async () => {
  const outcome = await give('three-count');
  const given = async () => (await workOf(gym.db, who))!.given[0]!;
  expect(outcome.kind).toBe('given');
  expect(await given()).toMatchObject({ dose: '3 × 8, counted aloud', todaysDose: '1 × 8' });
  await gym.db
    .updateTable('prescription')
    .set({ given_on: plusDays(today(), -30) })
    .execute();
  expect(await given()).toMatchObject({ todaysDose: '3 × 8' });
  // A usual week of ten leaves room for twelve.
  const log = { studentId: who, prescriptionId: null, technique: null, name: 'x', clean: null };
  const rest = { intent: 'slow', seconds: 0, countedBy: 'tap' } as const;
  await logWork(gym.db, { ...log, ...rest, id: 'a', day: plusDays(today(), -7), strikes: 10 });
  expect(await given()).toMatchObject({ todaysDose: '1 × 8' });
});
