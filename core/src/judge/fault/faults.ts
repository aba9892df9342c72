/** Faults and drills as they come with Sinew. Adding one is adding a row and its test. */
import { DRILLS } from '../../foundation/drill/drills';
import { ARM_FAULTS, CHAIN_FAULTS } from './rows/chain';
import { FAMILY_FAULTS } from './rows/family';
import { GROUND } from './rows/ground';
import { GUARD_FAULTS, INJURIES } from './rows/guard';
import { KICK_FAULTS, KICK_INJURIES } from './rows/kicks';
import { catalogueSchema, type Catalogue, type Fault } from './schema';

export const CATALOGUE: Catalogue = catalogueSchema.parse({
  faults: [
    ...INJURIES,
    ...KICK_INJURIES,
    ...GROUND,
    ...CHAIN_FAULTS,
    ...ARM_FAULTS,
    ...GUARD_FAULTS,
    ...FAMILY_FAULTS,
    ...KICK_FAULTS,
  ],
  drills: DRILLS,
});

export const FAULTS: readonly Fault[] = CATALOGUE.faults;

/** What is said to a student of a fault that shows in one of its ways. */
export function cueOf({ cue, cases }: Pick<Fault, 'cue' | 'cases'>, way: string): string {
  return cases.find(({ id }) => id === way)?.cue ?? cue;
}

export function faultById(id: string, { faults }: Pick<Catalogue, 'faults'> = CATALOGUE) {
  return faults.find((fault) => fault.id === id);
}
