/** The bend of the striking elbow: at contact, its change as the strike lands, and its way out. */
import { angleAt } from '../geometry/vector';
import { firstAbsent, missing, nearestFrame, striking, where } from '../motion/where';
import type { Motion } from '../motion/motion';
import {
  absent,
  isAbsent,
  isPresent,
  reading,
  type Absent,
  type Measured,
} from '../reading/reading';
import { propagate } from '../uncertainty/propagate';
import { eventOf, motionShowing, viewWords, type MeasureContext } from './context';

/** Seconds before contact over which a hook's angle must hold. */
export const DRIFT_WINDOW = 0.08;

interface Angle {
  readonly value: number;
  readonly sigma: number;
  readonly frames: readonly number[];
}

function elbowAngle(motion: Motion, time: number): Angle | Absent {
  const joints = (['Shoulder', 'Elbow', 'Wrist'] as const).map((part) =>
    where(motion, striking(motion, part), time),
  );
  const lacking = firstAbsent(...joints);
  if (lacking) return lacking;
  const known = joints.filter(isPresent);
  const n = motion.axes.length;
  const inputs = known.flatMap((joint) => joint.at);
  const angle = (v: readonly number[]) => angleAt(v.slice(0, n), v.slice(n, 2 * n), v.slice(2 * n));
  const sigmas = known.flatMap((joint) => joint.at.map(() => joint.sigma));
  const value = angle(inputs);
  if (!Number.isFinite(value)) return absent('Two points of the arm lie on the same spot.');
  return {
    value,
    sigma: Math.hypot(propagate(angle, inputs, sigmas), motion.planeSigma),
    frames: known.flatMap((joint) => joint.frames),
  };
}

/** The motion, when its view has the elbow's bend in the picture plane for this technique. */
function elbowShown(context: MeasureContext): Motion | Absent {
  const { motion, strike } = context;
  if (motion.view === '3d') return motion;
  const { elbowViews, name } = strike.technique;
  if (!elbowViews.includes(motion.view)) {
    return absent(
      `A view from ${viewWords(motion.view)} cannot show the elbow's bend in a ` +
        `${name.toLowerCase()}; film from ${elbowViews.map(viewWords).join(' or ')}.`,
    );
  }
  if (motion.axes.length === 0) return absent('Draw the line to the target in the picture.');
  return motion;
}

/** Inner angle of the elbow at contact, radians; π = straight. */
export function elbowAtContact(context: MeasureContext): Measured {
  const motion = elbowShown(context);
  if (isAbsent(motion)) return motion;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  const angle = elbowAngle(motion, contact.time);
  if (isAbsent(angle)) return angle;
  return reading(angle.value, 'rad', angle.sigma, motion.source, angle.frames);
}

/**
 * Change of the elbow's angle in the last 80 ms before contact, radians; positive = opening. σ
 * includes how much the angle changes within contact's own uncertainty.
 */
export function elbowDrift(context: MeasureContext): Measured {
  const motion = elbowShown(context);
  if (isAbsent(motion)) return motion;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  const last = elbowAngle(motion, contact.time);
  if (isAbsent(last)) return last;
  const start = elbowAngle(motion, contact.time - DRIFT_WINDOW);
  if (isAbsent(start)) {
    const elbow = striking(motion, 'Elbow');
    const frame = nearestFrame(motion.frameTimes, contact.time - DRIFT_WINDOW);
    return missing(motion, elbow, motion.frameTimes[frame]!);
  }
  const drift = last.value - start.value;
  const timing = (drift / DRIFT_WINDOW) * contact.sigma;
  return reading(drift, 'rad', Math.hypot(last.sigma, start.sigma, timing), motion.source, [
    ...last.frames,
    ...start.frames,
  ]);
}

/**
 * Largest distance by which the elbow leaves the upright plane through its own shoulder and the
 * target, to the outside, from the arm's start to contact; metres. Inside counts as negative.
 */
export function flare(context: MeasureContext): Measured {
  const motion = motionShowing(context, { needs: 'right', name: 'the elbow leaving the line' });
  if (isAbsent(motion)) return motion;
  const start = eventOf(context, 'arm');
  if (isAbsent(start)) return start;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  if (!motion.metric) return absent('Set the scale from a known length.');
  const elbow = motion.paths[striking(motion, 'Elbow')];
  const shoulder = motion.paths[striking(motion, 'Shoulder')];
  const axis = motion.axes.indexOf('right');
  const outward = motion.striking === 'right' ? 1 : -1;
  const seen = (elbow?.frames ?? []).flatMap((frame, i) => {
    const time = elbow!.times[i]!;
    const k = shoulder?.frames.indexOf(frame) ?? -1;
    if (k < 0 || time < start.time - 1e-9 || time > contact.time + 1e-9) return [];
    const out = outward * (elbow!.along[axis]![i]! - shoulder!.along[axis]![k]!);
    return [{ frame, time, out, sigma: Math.hypot(elbow!.sigma[i]!, shoulder!.sigma[k]!) }];
  });
  const stops = [start.time, ...seen.map((one) => one.time), contact.time];
  const widest = widestGap(stops);
  if (seen.length === 0 || widest.length > LONGEST_UNSEEN) {
    const shoulderIsThere = where(motion, striking(motion, 'Shoulder'), widest.middle);
    const part = isAbsent(shoulderIsThere) ? 'Shoulder' : 'Elbow';
    return missing(motion, striking(motion, part), widest.middle);
  }
  const most = seen.reduce((a, b) => (b.out > a.out ? b : a));
  const sigma = Math.hypot(most.sigma, motion.scaleSigma * most.out, motion.planeSigma * most.out);
  return reading(most.out, 'm', sigma, motion.source, [most.frame]);
}

/** Longest part of the way out that may go without a point before the largest is in doubt, s. */
const LONGEST_UNSEEN = 0.05;

function widestGap(times: readonly number[]): { length: number; middle: number } {
  let widest = { length: 0, middle: times[0]! };
  for (let i = 1; i < times.length; i++) {
    const span = times[i]! - times[i - 1]!;
    if (span > widest.length) widest = { length: span, middle: (times[i]! + times[i - 1]!) / 2 };
  }
  return widest;
}
