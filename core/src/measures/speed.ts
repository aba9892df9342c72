/** How fast the striking end travels to the target. */
import { landmarkName } from '../body/landmarks';
import { length } from '../geometry/vector';
import { movingAt, WINDOW } from '../motion/moving';
import { fistPath, missing, ownName, striking } from '../motion/where';
import { absent, isAbsent, reading, type Measured } from '../reading/reading';
import { eventOf, motionShowing, type MeasureContext } from './context';

/**
 * Speed of the fist at contact: for straights its component along the target line, for hooks and
 * uppercuts, which arrive across it, the length of the velocity the view shows. From the points of
 * the last 40 ms up to and including contact, never beyond: the target stops the fist, and that
 * must not leak back. A parabola through four or more points, a straight line through two or three.
 *
 * σ joins the placing noise, scale and projection, and the change of speed within contact's own
 * uncertainty.
 */
export function contactSpeed(context: MeasureContext): Measured {
  const isStraight = context.strike.technique.family === 'straight';
  const motion = motionShowing(context, {
    needs: NEEDED[context.strike.technique.family],
    name: isStraight ? 'speed to the target' : 'the path of this strike',
  });
  if (isAbsent(motion)) return motion;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  if (!motion.metric) return absent('Set the scale from a known length.');
  const path = fistPath(motion);
  const knuckle = striking(motion, 'IndexKnuckle');
  if (!path) return missing(motion, knuckle, contact.time);
  const fist = movingAt(path, contact.time);
  if (!fist) {
    const count = path.frames.includes(contact.frame) ? 1 : 0;
    return absent(
      `Place the ${landmarkName(ownName(motion, knuckle))} on two or more frames in the ` +
        `${WINDOW * 1000} ms before contact.`,
      { landmarks: [ownName(motion, knuckle)], frame: contact.frame - 2 * count },
    );
  }
  const only = (values: readonly number[]) =>
    isStraight ? [values[motion.axes.indexOf('toward')]!] : values;
  const speed = isStraight ? only(fist.velocity)[0]! : length(fist.velocity);
  const sigma = Math.hypot(
    fist.velocitySigma,
    motion.scaleSigma * speed,
    motion.planeSigma * speed,
    length(only(fist.acceleration)) * contact.sigma,
  );
  return reading(speed, 'm/s', sigma, motion.source, fist.frames);
}

/** The axis without which a family's path cannot be seen. */
const NEEDED = { straight: 'toward', hook: 'right', uppercut: 'up' } as const;
