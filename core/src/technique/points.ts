import { sided, type Landmark } from '../body/landmarks';
import type { View } from './catalogue';
import type { Strike } from './strike';

/**
 * The points worth placing for a strike in a view, in the order of the hand that places them:
 * those that some reading of this view rests on, and no others.
 */
export function pointsToPlace({ side, technique }: Strike, view: View): Landmark[] {
  const arm = (['Shoulder', 'Elbow', 'Wrist', 'IndexKnuckle'] as const).map((p) => sided(side, p));
  if (view === 'front' || view === 'behind') {
    return technique.family === 'straight' ? arm.slice(0, 2) : [sided(side, 'IndexKnuckle')];
  }
  if (view === 'side') return technique.family === 'hook' ? [] : arm;
  const ground: Landmark[] = ['leftShoulder', 'rightShoulder', 'leftHip', 'rightHip'];
  return [...arm, ...ground.filter((landmark) => !arm.includes(landmark))];
}
