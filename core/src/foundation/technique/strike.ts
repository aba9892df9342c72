import { leadSide, otherSide, type Side, type Stance } from '../body/landmarks';
import type { Technique } from './techniques';

/** A technique thrown with a given side of the student's own left or right. */
export interface Strike {
  readonly technique: Technique;
  readonly side: Side;
  /**
   * The student's stance. Only asked where the technique does not tell: elbows, kicks, and stepping, whip
   * and chambered straights are thrown with either side from the same stance.
   */
  readonly stance?: Stance;
}

/** The side a technique uses in a stance; the rear one where it may be either. */
export function strikingSide(technique: Technique, stance: Stance): Side {
  return technique.hand === 'lead' ? leadSide(stance) : otherSide(leadSide(stance));
}

/**
 * The stance a strike was thrown from: a cross with the left hand is a southpaw's cross, whoever
 * throws it.
 */
export function strikeStance({ technique, side, stance }: Strike): Stance {
  if (technique.hand === 'either') return stance ?? 'orthodox';
  return strikingSide(technique, 'orthodox') === side ? 'orthodox' : 'southpaw';
}
