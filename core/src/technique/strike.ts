import { leadSide, otherSide, type Side, type Stance } from '../body/landmarks';
import type { Technique } from './catalogue';

/** A technique thrown with a given hand of the student's own left or right. */
export interface Strike {
  readonly technique: Technique;
  readonly side: Side;
}

/** The hand a technique uses in a stance. */
export function strikingSide(technique: Technique, stance: Stance): Side {
  return technique.hand === 'lead' ? leadSide(stance) : otherSide(leadSide(stance));
}

/**
 * The stance a strike was thrown from: a cross with the left hand is a southpaw's cross, whoever
 * throws it.
 */
export function strikeStance({ technique, side }: Strike): Stance {
  return strikingSide(technique, 'orthodox') === side ? 'orthodox' : 'southpaw';
}
