/**
 * A body in space as a tracker guesses it from one picture: no measurement, since depth is not in a
 * picture, but a model's idea of how such a body stands. Places count from the middle of the hips, so
 * that nothing can be said of where the body goes.
 */
import { LANDMARKS, type Landmark, type Stance } from '../../foundation/body/landmarks';
import { rotation } from '../../foundation/geometry/pose';
import { cross, dot, type Vector } from '../../foundation/geometry/vector';
import type { Tracking } from '../../observe/track/trackFromDetections';
import { seen, type PoseDetection } from '../../observe/track/poseDetection';
import type { Points, SpaceTrack } from '../../observe/track/track';
import { biasInSpace } from '../../observe/track/pointSigma';
import type { Calibration } from './calibration';
import { floorCamera, seenStraight, standing, UP } from './camera';

/** The student's axes in those of the camera: right of the picture, down, away. */
type Axes = readonly [toward: Vector, up: Vector, right: Vector];

/**
 * A guess in space errs more than a point in the picture, as a multiple: where limbs bend and end more than the
 * rest, and along the line of sight, which is not in a picture, by so much again. Found on rendered fighters, from
 * the side, the front, behind and corners (docs/accuracy.md).
 */
const IN_SPACE = { limb: 3.6, rest: 2.3 };
const DEPTH = 2;
const LIMBS = /Elbow|Wrist|Knuckle|Knee/;
/** Standing height that the model's lengths are true to, metres; the body's own is not known to it. */
const MODEL_HEIGHT = 1.7;
/** The model knows bodies, not this body: relative, one standard deviation. */
const SCALE_SIGMA = 0.08;

/**
 * @returns null when the view does not tell which way the student faces, from above (of which such a
 *   model knows nothing), or when nothing was tracked
 */
export function estimatedSpace(
  { track, detections }: Pick<Tracking, 'track' | 'detections'>,
  calibration: Calibration,
  stance: Stance,
): SpaceTrack | null {
  const axes = axesOf(calibration, stance);
  if (!axes || !detections.some(isGuessed)) return null;
  const points: Partial<Record<Landmark, Points>> = {};
  for (const landmark of LANDMARKS) {
    // Only where the picture's own point was found to hang together.
    const isThere = new Set(track.points[landmark]?.frames);
    const own = detections.filter(({ frame }) => isThere.has(frame));
    if (own.length === 0) continue;
    const places = own.map((detection) => {
      const { inSpace } = seen(detection, landmark);
      return axes.map((axis) => dot(axis, inSpace));
    });
    const errs = LIMBS.test(landmark) ? IN_SPACE.limb : IN_SPACE.rest;
    const bias = own.map((detection) => {
      const { visibility } = seen(detection, landmark);
      return errs * MODEL_HEIGHT * biasInSpace(landmark, visibility);
    });
    points[landmark] = {
      frames: own.map(({ frame }) => frame),
      x: places.map((place) => place[0]!),
      y: places.map((place) => place[1]!),
      z: places.map((place) => place[2]!),
      sigma: bias.map((value) => value * SHAKE),
      bias,
      isTracked: true,
    };
  }
  return {
    space: '3d',
    source: 'estimated-3d',
    frameTimes: track.frameTimes,
    points,
    scaleSigma: SCALE_SIGMA,
    deep: axes.map(([, , away]) => Math.hypot(1, away! * Math.sqrt(DEPTH ** 2 - 1))) as [
      number,
      number,
      number,
    ],
  };
}

/** Not every series says where the body is in space. */
function isGuessed(detection: PoseDetection): boolean {
  const [left, right] = [seen(detection, 'leftShoulder'), seen(detection, 'rightShoulder')];
  return left.inSpace.some((value, k) => value !== right.inSpace[k]);
}

/** Shake from frame to frame as a share of the lasting error. */
const SHAKE = 0.2;

function axesOf(calibration: Calibration, stance: Stance): Axes | null {
  const { view, azimuth, target, rectangle } = calibration;
  if (view === 'above') return null;
  if (rectangle && rectangle.kind !== 'upright') {
    const camera = floorCamera(calibration);
    const turned = rotation(camera.pose.turn);
    const inCamera = (way: Vector): Vector => turned.map((row) => dot(row, way));
    const { toward } = standing(calibration, camera);
    return [inCamera(toward), inCamera(UP), inCamera(cross(toward, UP))];
  }
  if (azimuth !== undefined) {
    return levelAxes(Math.cos(azimuth), (stance === 'orthodox' ? 1 : -1) * Math.sin(azimuth));
  }
  if (view === 'front') return levelAxes(1, 0);
  if (view === 'behind') return levelAxes(-1, 0);
  if (!target) return null;
  const [from, to] = [seenStraight(calibration, target.from), seenStraight(calibration, target.to)];
  return levelAxes(0, to.x >= from.x ? 1 : -1);
}

/** Of a level camera that stands so far toward the target, and to the student's right. */
function levelAxes(ahead: number, right: number): Axes {
  return [
    [right, 0, -ahead],
    [0, -1, 0],
    [-ahead, 0, -right],
  ];
}
