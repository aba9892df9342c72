/** What the order of hips and trunk rests on, the best there is. */
import type { Events } from './events';

export type TurnEvidence = '3d' | 'band' | 'marks' | 'drive' | 'eye';

/** @returns null when nothing tells it */
export function turnEvidence({ hips, trunk, drive }: Events): TurnEvidence | null {
  const sources = [hips, trunk].flatMap((mark) => (mark ? [mark.source] : []));
  if (sources.includes('measured-3d')) return '3d';
  if (sources.includes('measured-band')) return 'band';
  if (sources.includes('measured-2d')) return 'marks';
  if (sources.includes('eye')) return 'eye';
  return drive ? 'drive' : null;
}
