/** What a strike of a clip is judged by: the gym's library and school, the student's, its own. */
import type { Look } from '../judge/eye/blindLook';
import type { Library } from '../judge/library/edits';
import type { Rules } from '../judge/fault/finding';
import { resolve } from '../judge/school/resolve';
import type { School } from '../judge/school/schools';
import type { StrikeDocument } from './clipDocument';

interface OfStudent {
  /** The student's own choices of school. */
  readonly school: School;
}

/** What other strikes of the same film tell of one. */
interface Beside {
  /** Whether it is one of a combination, where the coach has not said otherwise. */
  readonly isOfSeveral: boolean;
  /** Blind looks at each of them. */
  readonly others: readonly (readonly Look[])[];
}

export function rulesFor(
  strike: StrikeDocument,
  strikes: readonly StrikeDocument[],
  student: OfStudent,
  library: Library,
): Rules {
  const { combination } = strike;
  const isOfSeveral = strikes.filter((one) => one.combination === combination).length > 1;
  const others = strikes.filter(({ id }) => id !== strike.id).map(({ looks = [] }) => looks);
  return rulesOfStrike(
    strike,
    { isOfSeveral: combination !== undefined && isOfSeveral, others },
    student,
    library,
  );
}

export function rulesOfStrike(
  strike: Pick<StrikeDocument, 'situation' | 'range' | 'school' | 'audit' | 'looks'>,
  { isOfSeveral, others }: Beside,
  student: OfStudent,
  library: Library,
): Rules {
  const { situation, range = null, school = {}, audit = {}, looks = [] } = strike;
  return {
    catalogue: library.catalogue,
    school: resolve({
      gym: library.school,
      student: student.school,
      strike: school,
      situation: situation ?? (isOfSeveral ? 'combination' : 'not-said'),
      range,
    }),
    audit,
    eye: { own: looks, others },
  };
}
