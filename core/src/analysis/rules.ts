/** What a strike of a clip is judged by: the gym's library and school, the student's, its own. */
import type { Library } from '../judge/library/edits';
import type { Rules } from '../judge/fault/finding';
import { resolve } from '../judge/school/resolve';
import type { School } from '../judge/school/schools';
import type { StrikeDocument } from './clipDocument';

interface OfStudent {
  /** The student's own choices of school. */
  readonly school: School;
}

export function rulesFor(
  strike: StrikeDocument,
  strikes: readonly StrikeDocument[],
  student: OfStudent,
  library: Library,
): Rules {
  const { combination } = strike;
  const isOfSeveral = strikes.filter((one) => one.combination === combination).length > 1;
  return rulesOfStrike(strike, combination !== undefined && isOfSeveral, student, library);
}

/** @param isOfSeveral whether it is one of a combination, where the coach has not said otherwise */
export function rulesOfStrike(
  strike: Pick<StrikeDocument, 'situation' | 'range' | 'school' | 'audit'>,
  isOfSeveral: boolean,
  student: OfStudent,
  library: Library,
): Rules {
  const { situation, range = null, school = {}, audit = {} } = strike;
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
  };
}
