/** How much of the arm's own length the strike uses. */
import { distance } from '../geometry/vector';
import type { Landmark } from '../body/landmarks';
import { fistPath, striking, where, whereFist, firstAbsent, missing } from '../motion/where';
import type { Motion } from '../motion/motion';
import { isAbsent, reading, type Absent, type Measured } from '../reading/reading';
import { propagate } from '../uncertainty/propagate';
import { eventOf, motionShowing, type MeasureContext } from './context';

/**
 * Shoulder-to-fist distance at contact ÷ full extension: upper arm + forearm + hand, each at the
 * longest it is seen in this strike (a link pointing at the camera looks shorter than it is, never
 * longer). Needs no scale. σ joins placing noise with how far the fist travels within contact's
 * own uncertainty.
 */
export function reach(context: MeasureContext): Measured {
  const motion = motionShowing(context, { needs: 'toward', name: 'reach to the target' });
  if (isAbsent(motion)) return motion;
  const contact = eventOf(context, 'contact');
  if (isAbsent(contact)) return contact;
  const shoulder = where(motion, striking(motion, 'Shoulder'), contact.time);
  const fist = whereFist(motion, contact.time);
  if (isAbsent(shoulder) || isAbsent(fist)) return firstAbsent(shoulder, fist)!;
  const full = fullExtension(motion, contact.time);
  if ('absent' in full) return full;

  const n = motion.axes.length;
  const inputs = [...shoulder.at, ...fist.at, full.length];
  const sigmas = [
    ...shoulder.at.map(() => shoulder.sigma),
    ...fist.at.map(() => fist.sigma),
    full.sigma,
  ];
  const share = (v: readonly number[]) => distance(v.slice(0, n), v.slice(n, 2 * n)) / v[2 * n]!;
  const noise = propagate(share, inputs, sigmas);
  const timing = (closingSpeed(motion, contact.time) * contact.sigma) / full.length;
  const projected = motion.planeSigma * share(inputs);
  return reading(share(inputs), 'ratio', Math.hypot(noise, timing, projected), motion.source, [
    ...shoulder.frames,
    ...fist.frames,
    ...full.frames,
  ]);
}

interface Extension {
  readonly length: number;
  readonly sigma: number;
  readonly frames: readonly number[];
}

function fullExtension(motion: Motion, contactTime: number): Extension | Absent {
  const joints = [
    striking(motion, 'Shoulder'),
    striking(motion, 'Elbow'),
    striking(motion, 'Wrist'),
  ];
  const paths = joints.map((joint) => motion.paths[joint]);
  const lacking = joints.find((_, i) => !paths[i]);
  if (lacking) return missing(motion, lacking, contactTime);
  const chain = [...paths.map((path) => path!), fistPath(motion)!];
  let total = 0;
  let variance = 0;
  const frames: number[] = [];
  for (let link = 0; link + 1 < chain.length; link++) {
    const [near, far] = [chain[link]!, chain[link + 1]!];
    // The longest of many noisy lengths is biased upwards; the mean of the longest few is less so.
    const seen = near.frames
      .flatMap((frame, i) => {
        const k = far.frames.indexOf(frame);
        if (k < 0) return [];
        const ends = [near.along.map((v) => v[i]!), far.along.map((v) => v[k]!)] as const;
        return [
          { frame, length: distance(...ends), sigma: Math.hypot(near.sigma[i]!, far.sigma[k]!) },
        ];
      })
      .sort((a, b) => b.length - a.length);
    if (seen.length === 0) return missing(motion, joints[Math.min(link + 1, 2)]!, contactTime);
    const best = motion.view === '3d' ? seen : seen.slice(0, Math.ceil(seen.length / 10));
    total += best.reduce((sum, one) => sum + one.length, 0) / best.length;
    variance += best.reduce((sum, one) => sum + one.sigma ** 2, 0) / best.length ** 2;
    frames.push(best[0]!.frame);
  }
  return { length: total, sigma: Math.sqrt(variance), frames };
}

/** How fast the fist leaves the shoulder just before `time`, length units per second. */
function closingSpeed(motion: Motion, time: number): number {
  const span = 0.03;
  const shoulderJoint: Landmark = striking(motion, 'Shoulder');
  const path = fistPath(motion);
  const earlier = path?.times.filter((t) => t < time - 1e-9 && t > time - 2 * span) ?? [];
  const from = earlier.length > 0 ? earlier[0]! : time;
  const distanceAt = (t: number) => {
    const shoulder = where(motion, shoulderJoint, t);
    const fist = whereFist(motion, t);
    return isAbsent(shoulder) || isAbsent(fist) ? null : distance(shoulder.at, fist.at);
  };
  const [now, then] = [distanceAt(time), distanceAt(from)];
  if (now !== null && then !== null && from < time) return Math.abs(now - then) / (time - from);
  // Nothing to tell how fast it moved: two arm lengths a tenth of a second apart is a fast punch.
  return (now ?? 0) / 0.1;
}
