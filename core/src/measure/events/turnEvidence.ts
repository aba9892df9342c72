/** What the order of hips and trunk rests on, the best there is. */
import { isPresent, type Measured } from '../../foundation/reading/reading';
import type { Events } from './events';

export type TurnEvidence = '3d' | 'band' | 'marks' | 'drive' | 'eye';

/**
 * @param halfLead how much sooner the hips are half-way through their turn, which marks and bands tell without starts
 * @returns null when nothing tells it
 */
export function turnEvidence(
  { hips, trunk, drive }: Events,
  halfLead?: Measured,
): TurnEvidence | null {
  const halfWay = halfLead && isPresent(halfLead) ? halfLead : undefined;
  const sources = [hips, trunk, halfWay].flatMap((one) => (one ? [one.source] : []));
  if (sources.includes('measured-3d')) return '3d';
  if (sources.includes('measured-band')) return 'band';
  if (sources.includes('measured-2d')) return 'marks';
  if (sources.includes('eye')) return 'eye';
  return drive ? 'drive' : null;
}
