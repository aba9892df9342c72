/** What the screens of work and ledger show, worked out apart from them. */
import { describe, expect, it } from 'vitest';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { MEASURE_IDS, type Readings } from '@sinew/core/measure/measures/allMeasures';
import { unitOf } from '@sinew/core/measure/measures/units';
import { absent } from '@sinew/core/foundation/reading/reading';
import { SESSIONS } from '@sinew/core/train/work/session';
import { begin, jumped } from '@sinew/core/train/work/timer';
import type { MeasuredSet } from '@/data/finding/measuredSets';
import { alikeOf, trackOf, trendSentence, type Alike } from '@/data/progress/trends';
import { bestOf, chartOf } from '@/screens/ledger/view';
import { callsOf, doneOf } from '@/screens/timer/done';
import type { KeptRun } from '@/timer/keptRun';

const NONE = Object.fromEntries(
  MEASURE_IDS.map((id) => [id, absent('Not placed.')]),
) as unknown as Readings;

const LEAD = 'lead.hipsTrunk';
function set(day: string, lead: number, change: Partial<MeasuredSet> = {}): MeasuredSet {
  const readings: Readings = {
    ...NONE,
    [LEAD]: { value: lead, sigma: 0.002, unit: unitOf(LEAD), source: 'measured-2d', frames: [] },
  };
  return {
    technique: 'cross',
    side: 'right',
    view: 'side',
    intent: 'tempo',
    round: null,
    day,
    clipId: `clip ${day}`,
    readings,
    strikes: [{ id: `strike ${day}` }] as never,
    ...change,
  };
}
const WEEKS = ['2026-10-05', '2026-10-12', '2026-10-19', '2026-10-26'];

describe('a ledger', () => {
  const first = (alike: Alike) => trackOf(alike, alike.values[0]!.id)!;
  const shown = (sets: readonly MeasuredSet[]) => alikeOf(sets, 'cross', USUAL_RULES, () => null);
  const sets = WEEKS.map((day, i) => set(day, 0.01 * i));

  it('keeps apart what was filmed otherwise, the most filmed first', () => {
    const groups = shown([...sets, set('2026-10-27', 0.05, { view: 'above' })]);
    expect(groups.map(({ label, sets: count }) => `${label}: ${count.length}`)).toEqual([
      'right, from the side, at tempo: 4',
      'right, from above, at tempo: 1',
    ]);
  });

  it('says where a reading goes in one sentence, and nothing that cannot be claimed', () => {
    const sentence = (some: readonly MeasuredSet[]) => trendSentence(first(shown(some)[0]!));
    expect(sentence(sets)).toBe('Hips before trunk rises 10 ± 4 ms a week: better.');
    expect(sentence([...sets].map((one, i) => set(one.day, i % 2 ? 0.01 : 0.012)))).toMatch(
      /^Hips before trunk: no change you can claim/,
    );
    expect(sentence(sets.slice(0, 2))).toBe('Hips before trunk: 2 sets; three tell a trend.');
    expect(sentence(sets.map((one) => ({ ...one, day: '2026-10-05' })))).toMatch(/all of one day/);
  });

  it('names what goes somewhere, the right way or the wrong one', () => {
    const [up] = shown(sets);
    expect(up!.goes).toEqual([
      { id: LEAD, sentence: 'Hips before trunk rises 10 ± 4 ms a week: better.' },
    ]);
    const down = shown(WEEKS.map((day, i) => set(day, 0.05 - 0.01 * i)));
    expect(down[0]!.goes[0]!.sentence).toMatch(/falls .*: worse\.$/);
    expect(shown(sets.slice(0, 2))[0]!.goes).toEqual([]);
    expect(trackOf(up!, 'no-such-reading')).toBeNull();
  });

  it('knows the best set, and draws every set with the band of the first', () => {
    const track = first(shown(sets)[0]!);
    expect(bestOf(track!)!.day).toBe('2026-10-26');
    const { dots, band } = chartOf(track!, null, 600, 200);
    expect(dots.map(({ x }) => Math.round(x))).toEqual([24, 208, 392, 576]);
    expect(dots[3]!.y).toBeLessThan(dots[0]!.y);
    expect(band.bottom - band.top).toBeGreaterThan(dots[0]!.bottom - dots[0]!.top);
    const wide = chartOf(track!, 0.01, 600, 200).band;
    expect(wide.bottom - wide.top).toBeGreaterThan(band.bottom - band.top);
  });
});

describe('a session that has run', () => {
  const T = Date.UTC(2026, 0, 5, 18);
  const kept = (id: string, index: number): KeptRun => ({
    id: 'run',
    session: SESSIONS.find((one) => one.id === id)!,
    combinations: ['1-2'],
    pace: 6,
    seed: 7,
    isSpoken: true,
    students: [],
    run: jumped(begin(T), index, T, 99),
  });

  it('counts the rounds that were done and the punches that were called in them', () => {
    const [block] = doneOf(kept('rounds', 99), T);
    expect(block).toMatchObject({ name: 'Rounds: Rounds', seconds: 540, intent: 'tempo' });
    const called = [1, 3, 5].flatMap((index) => callsOf(kept('rounds', 99), index)).length;
    expect(block!.strikes).toBe(2 * called);
    expect(called).toBeGreaterThan(60);
  });

  it('counts a round that was broken off as far as it came', () => {
    const [block] = doneOf(kept('rounds', 3), T + 60_000);
    expect(block!.seconds).toBe(240);
    expect(doneOf(kept('rounds', 0), T + 5000)).toEqual([]);
  });

  it('knows how many strikes counted work asks for', () => {
    const power = SESSIONS.find(({ id }) => id === 'power-day')!;
    const singles = doneOf(kept(power.id, 99), T).find(({ name }) =>
      name.includes('one at a time'),
    )!;
    // Five sets of four.
    expect(singles).toMatchObject({ strikes: 20, intent: 'power' });
  });
});
