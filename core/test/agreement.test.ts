/** How often a coach agrees with the judge, and the limit that would have agreed more often. */
import { describe, expect, it } from 'vitest';
import { agreementOn, type Decided } from '../src/judge/library/agreement';
import { faultById } from '../src/judge/fault/faults';
import { isOfReading } from '../src/judge/fault/schema';

const drop = faultById('hand-drop')!;
const limit = drop.cases[0]!.limits.find(isOfReading)!;

const at = (value: number, isTaken: boolean, size?: number): Decided => ({
  technique: 'jab',
  isTaken,
  judgedBy: [
    {
      limit: size ? { ...limit, value: limit.value * size } : limit,
      measured: {
        value,
        unit: 'm',
        sigma: 0.002,
        source: 'measured-3d',
        frames: [1],
        ...(size && { size }),
      },
    },
  ],
});
const wrongNear = [0.056, 0.058, 0.061, 0.064].map((value) => at(value, false));
const takenFar = [0.082, 0.09, 0.11].map((value) => at(value, true));

describe('a limit that calls small things a leak', () => {
  it('is to move to where what was taken begins', () => {
    expect(limit).toMatchObject({ is: 'above', value: 0.05 });
    expect(agreementOn(drop, [...takenFar, ...wrongNear])).toEqual({
      taken: 3,
      wrong: 4,
      proposal: {
        limit: 'usual/telegraph.dip',
        reading: 'telegraph.dip',
        from: 0.05,
        to: 0.073,
        wrongLeft: 4,
        takenLeft: 0,
      },
    });
  });

  it('is held against a child as it would be on a grown man', () => {
    const child = [0.045, 0.046, 0.049, 0.051].map((value) => at(value, false, 0.8));
    const { proposal } = agreementOn(drop, [...takenFar, ...child]);
    expect(proposal!.wrongLeft).toBe(4);
    expect(proposal!.to).toBeCloseTo((0.051 / 0.8 + 0.082) / 2, 3);
  });

  it('stays where it would spare as much that was right', () => {
    const taken = [0.054, 0.057, 0.06, 0.063].map((value) => at(value, true));
    expect(agreementOn(drop, [...wrongNear, ...taken]).proposal).toBeNull();
  });

  it('stays with few decisions, and where nothing was measured', () => {
    expect(agreementOn(drop, wrongNear).proposal).toBeNull();
    const eye = Array.from({ length: 9 }, (_, i): Decided => ({
      technique: 'jab',
      isTaken: i > 6,
      judgedBy: [{ limit, measured: null }],
    }));
    expect(agreementOn(drop, eye)).toEqual({ taken: 2, wrong: 7, proposal: null });
  });
});

it('a limit from below moves down', () => {
  const early = faultById('all-at-once')!;
  const lead = early.cases[0]!.limits.find(isOfReading)!;
  expect(lead).toMatchObject({ is: 'below', value: 0.02 });
  const decided = (value: number, isTaken: boolean): Decided => ({
    technique: 'cross',
    isTaken,
    judgedBy: [
      {
        limit: lead,
        measured: { value, unit: 's', sigma: 0.001, source: 'measured-3d', frames: [1] },
      },
    ],
  });
  const { proposal } = agreementOn(early, [
    ...[0.017, 0.016, 0.014].map((value) => decided(value, false)),
    ...[0.004, 0.001].map((value) => decided(value, true)),
  ]);
  expect(proposal).toMatchObject({ from: 0.02, to: 0.009, wrongLeft: 3, takenLeft: 0 });
});
