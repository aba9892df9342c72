/** The points of the body that Sinew follows, named for the student's own left and right. */
export const LANDMARKS = [
  'nose',
  'leftEar',
  'rightEar',
  'leftShoulder',
  'rightShoulder',
  'leftElbow',
  'rightElbow',
  'leftWrist',
  'rightWrist',
  'leftIndexKnuckle',
  'rightIndexKnuckle',
  'leftLittleKnuckle',
  'rightLittleKnuckle',
  'leftHip',
  'rightHip',
  'leftKnee',
  'rightKnee',
  'leftAnkle',
  'rightAnkle',
  'leftHeel',
  'rightHeel',
  'leftToe',
  'rightToe',
] as const;

export type Landmark = (typeof LANDMARKS)[number];
export function isLandmark(name: string): name is Landmark {
  return (LANDMARKS as readonly string[]).includes(name);
}

export type Side = 'left' | 'right';
export type Stance = 'orthodox' | 'southpaw';

/** Parts that exist on both sides, e.g. `sided('left', 'Elbow')` is `leftElbow`. */
export type SidedPart =
  | 'Ear'
  | 'Shoulder'
  | 'Elbow'
  | 'Wrist'
  | 'IndexKnuckle'
  | 'LittleKnuckle'
  | 'Hip'
  | 'Knee'
  | 'Ankle'
  | 'Heel'
  | 'Toe';

export function sided(side: Side, part: SidedPart): Landmark {
  return `${side}${part}`;
}

export function otherSide(side: Side): Side {
  return side === 'left' ? 'right' : 'left';
}

/** The same point on the other side of the body; `nose` is its own mirror image. */
export function mirrored(landmark: Landmark): Landmark {
  if (landmark.startsWith('left')) return ('right' + landmark.slice(4)) as Landmark;
  if (landmark.startsWith('right')) return ('left' + landmark.slice(5)) as Landmark;
  return landmark;
}

/** "right elbow", "left index knuckle". */
export function landmarkName(landmark: Landmark): string {
  return landmark.replace(/[A-Z]/g, (capital) => ' ' + capital.toLowerCase());
}

/** Which hand is nearer the target: the left in orthodox, the right in southpaw. */
export function leadSide(stance: Stance): Side {
  return stance === 'orthodox' ? 'left' : 'right';
}
