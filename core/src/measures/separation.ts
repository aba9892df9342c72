/** How far the pelvis turns ahead of the trunk: the stretch across the body. */
import { absent, isAbsent, reading, type Measured } from '../reading/reading';
import { turnSeries, turnSign } from '../motion/turn';
import { lowerBound } from '../signal/interpolate';
import { eventOf, motionShowing, type MeasureContext } from './context';

/** Largest stretch of the way without a frame that shows hips and shoulders, seconds. */
const LONGEST_UNSEEN = 0.03;

/**
 * Growth of the pelvis-to-trunk angle from the start of the hips to its largest before contact,
 * radians; positive = the pelvis runs ahead. Needs the ground plane: from above or in 3D.
 */
export function separationGrowth(context: MeasureContext): Measured {
  const motion = motionShowing(context, {
    needs: 'ground',
    name: 'hips turning against shoulders',
  });
  if (isAbsent(motion)) return motion;
  const hips = eventOf(context, 'hips');
  if (isAbsent(hips)) return hips;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  const pelvis = turnSeries(motion, 'pelvis');
  const trunk = turnSeries(motion, 'trunk');
  if (!pelvis || !trunk) return absent('Place both hips and both shoulders.');
  const sign = turnSign(motion);
  const seen = pelvis.frames.flatMap((frame, i) => {
    const k = trunk.frames.indexOf(frame);
    const time = pelvis.times[i]!;
    if (k < 0 || time < hips.time - LONGEST_UNSEEN || time > contact.time + 1e-9) return [];
    const angle = sign * (pelvis.yaw[i]! - trunk.yaw[k]!);
    return [{ frame, time, angle, sigma: Math.hypot(pelvis.sigma[i]!, trunk.sigma[k]!) }];
  });
  const times = seen.map((one) => one.time);
  const gaps = [...times.slice(1), contact.time].map((time, i) => time - times[i]!);
  if (seen.length < 3 || Math.max(...gaps) > LONGEST_UNSEEN) {
    return absent('Place both hips and both shoulders on every third frame from hips to contact.');
  }
  const startIndex = Math.min(lowerBound(times, hips.time - 1e-9), seen.length - 1);
  const start = seen[startIndex]!;
  const most = seen.slice(startIndex).reduce((a, b) => (b.angle > a.angle ? b : a));
  return reading(
    most.angle - start.angle,
    'rad',
    Math.hypot(most.sigma, start.sigma),
    motion.source,
    [start.frame, most.frame],
  );
}
