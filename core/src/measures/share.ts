/** What each link adds to the speed of the fist at contact. */
import { sided } from '../body/landmarks';
import { decompose, PARTS, type ArmChain, type Moving, type Part } from '../chain/decompose';
import { dot, length, scaled } from '../geometry/vector';
import type { Motion } from '../motion/motion';
import { inSpace, movingAt, type MovingPoint } from '../motion/moving';
import { fistPath, missing, striking } from '../motion/where';
import { absent, isAbsent, reading, type Absent, type Measured } from '../reading/reading';
import { propagate } from '../uncertainty/propagate';
import { eventOf, motionShowing, type MeasureContext } from './context';

/**
 * The parts of the fist's speed at contact, along the strike's direction, that come from each link:
 * m/s, and together the whole speed. The direction is the target line for straights, the fist's own
 * path for hooks and uppercuts. Needs the ground plane: 3D, or from above, where the vertical drive
 * is not seen.
 *
 * σ joins the points' noise, the scale, and what rigid links leave unexplained: that is doubt about
 * every one of them.
 */
export function shares(context: MeasureContext): Readonly<Record<Part, Measured>> | Absent {
  const motion = motionShowing(context, { needs: 'ground', name: 'what each link adds' });
  if (isAbsent(motion)) return motion;
  if (!motion.metric) return absent('Set the scale from a known length.');
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  const points = pointsOf(motion, contact.time);
  if ('absent' in points) return points;

  const velocities = points.flatMap((point) => inSpace(motion.axes, point.velocity));
  const sigmas = points.flatMap((point) =>
    inSpace(
      motion.axes,
      motion.axes.map(() => point.velocitySigma),
    ),
  );
  const chain = (v: readonly number[]) => chainOf(motion, points, v);
  const end = chain(velocities).end.velocity;
  const isStraight = context.strike.technique.family === 'straight';
  const direction = isStraight ? [1, 0, 0] : scaled(end, 1 / length(end));
  const parts = decompose(chain(velocities), direction);
  const frames = points.flatMap((point) => point.frames);
  const projected = (motion.scaleSigma + motion.planeSigma) * dot(end, direction);
  const readingOf = (part: Part): Measured => {
    if (part === 'drive' && !motion.axes.includes('up')) {
      return absent('A view from above cannot show the vertical drive; film from the side.');
    }
    const noise = propagate((v) => decompose(chain(v), direction)[part], velocities, sigmas);
    const sigma = Math.hypot(noise, projected, parts.other);
    return reading(parts[part], 'm/s', sigma, motion.source, frames);
  };
  return Object.fromEntries(PARTS.map((part) => [part, readingOf(part)])) as Record<Part, Measured>;
}

/** The eight points of the chain, moving, in the order `chainOf` takes them. */
function pointsOf(motion: Motion, time: number): MovingPoint[] | Absent {
  const joints = [
    ...(['leftHip', 'rightHip', 'leftShoulder', 'rightShoulder'] as const),
    striking(motion, 'Elbow'),
    striking(motion, 'Wrist'),
  ];
  const found: MovingPoint[] = [];
  for (const joint of joints) {
    const path = motion.paths[joint];
    const point = path && movingAt(path, time);
    if (!point) return missing(motion, joint, time);
    found.push(point);
  }
  const fist = fistPath(motion);
  const end = fist && movingAt(fist, time);
  return end ? [...found, end] : missing(motion, striking(motion, 'IndexKnuckle'), time);
}

function chainOf(motion: Motion, points: readonly MovingPoint[], v: readonly number[]): ArmChain {
  const moving = points.map((point, i): Moving => ({
    at: inSpace(motion.axes, point.at),
    velocity: v.slice(3 * i, 3 * i + 3),
  }));
  const [leftHip, rightHip, left, right, elbow, wrist, end] = moving as [
    Moving,
    Moving,
    Moving,
    Moving,
    Moving,
    Moving,
    Moving,
  ];
  const shoulder = striking(motion, 'Shoulder') === sided('left', 'Shoulder') ? left : right;
  return { hips: [leftHip, rightHip], shoulders: [left, right], shoulder, elbow, wrist, end };
}
