import { sided, type Landmark } from '../body/landmarks';
import type { View } from './techniques';
import type { Strike } from './strike';

/**
 * The points worth placing for a strike in a view, in the order of the hand that places them:
 * those that the readings which matter most in this view rest on, and no others.
 */
export function pointsToPlace({ side, technique }: Strike, view: View): Landmark[] {
  const isFlat = view === 'front' || view === 'behind';
  if (technique.family === 'kick') {
    const leg = (['Hip', 'Knee', 'Ankle', 'Toe'] as const).map((part) => sided(side, part));
    return view === 'above' ? withGround(leg) : leg;
  }
  const arm = (['Shoulder', 'Elbow', 'Wrist', 'IndexKnuckle'] as const).map((p) => sided(side, p));
  if (technique.family === 'elbow')
    return view === 'above' ? withGround(arm.slice(0, 2)) : arm.slice(0, 2);
  if (isFlat)
    return technique.family === 'straight' ? arm.slice(0, 2) : [sided(side, 'IndexKnuckle')];
  if (view === 'side') return technique.family === 'hook' ? [] : arm;
  return withGround(arm);
}

/** With the lines of hips and shoulders, which a view from above shows turning. */
function withGround(points: Landmark[]): Landmark[] {
  const ground: Landmark[] = ['leftShoulder', 'rightShoulder', 'leftHip', 'rightHip'];
  return [...points, ...ground.filter((landmark) => !points.includes(landmark))];
}
