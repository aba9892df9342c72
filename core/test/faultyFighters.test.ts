/** Every fault in every strike that can have it is either put into a fighter, or owned up to. */
import { expect, it } from 'vitest';
import { FAULTY_FIGHTERS } from '@sinew/fighters/fighter/faults';
import { NOT_YET } from '@sinew/fighters/fighter/techniqueLists';
import { FAULTS } from '../src/judge/fault/faults';

const ofStrikes = FAULTS.filter(({ scope }) => scope === 'strike');

it.each(ofStrikes.map((fault) => [fault.id, fault.techniques] as const))(
  '%s is tried in every technique that can have it',
  (id, techniques) => {
    const made = FAULTY_FIGHTERS.filter(({ fault }) => fault === id).flatMap(
      (fighter) => fighter.techniques,
    );
    expect([...new Set([...made, ...(NOT_YET[id] ?? [])])].sort()).toEqual([...techniques].sort());
    expect(made.filter((one) => NOT_YET[id]?.includes(one))).toEqual([]);
  },
);

it('none is put off that is no fault any more', () => {
  const known = ofStrikes.map(({ id }) => id);
  expect(Object.keys(NOT_YET).filter((id) => !known.includes(id))).toEqual([]);
});
