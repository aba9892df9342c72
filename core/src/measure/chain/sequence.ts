/**
 * The order of the chain: which link starts, and which is fastest, when.
 *
 * Source of the expected order, from the ground outwards: Putnam, J. Biomech. 26 Suppl. 1 (1993)
 * 125–135.
 */
import type { EventMark, Events } from '../events/events';
import { speedOf } from '../events/linkSpeed';
import type { Motion } from '../../reconstruct/motion/motion';
import { turningOf } from '../../reconstruct/motion/speeds';
import { localFit } from '../../foundation/signal/localFit';
import type { Link, Technique } from '../../foundation/technique/techniques';

export interface Step {
  readonly link: Link;
  /** Seconds. */
  readonly time: number;
  readonly sigma: number;
}

/** Starts in the order of the chain, those that are known. */
export function startSteps(events: Events, { family, end }: Technique): Step[] {
  const links: readonly (readonly [Link, EventMark | undefined])[] =
    family === 'kick'
      ? [
          ['pelvis', events.hips],
          ['thigh', events.trunk],
          ...(end === 'knee' ? [] : [['shank', events.arm] as const]),
        ]
      : [
          ['pelvis', events.hips],
          ['trunk', events.trunk],
          ['shoulder', events.arm],
        ];
  return links.flatMap(([link, mark]) =>
    mark ? [{ link, time: mark.time, sigma: mark.sigma }] : [],
  );
}

/** Half-width of the stretch around a peak to which a parabola is fitted, seconds. */
const AROUND = 0.03;

/**
 * When each link turns fastest before contact, in the order of the chain; in a picture only pelvis and trunk,
 * as limbs turn out of it.
 */
export function peakSteps(motion: Motion, technique: Technique, contact: EventMark): Step[] {
  const links = turningOf(motion, technique, 'raw').filter(
    ([link]) => motion.view === '3d' || link === 'pelvis' || link === 'trunk',
  );
  return links.flatMap(([link, series]) => {
    const speed = speedOf(series, contact.time);
    if (!speed) return [];
    const { times, values, noise } = speed;
    let peak = 0;
    values.forEach((value, i) => (peak = value > values[peak]! ? i : peak));
    const near = times.flatMap((time, i) => (Math.abs(time - times[peak]!) <= AROUND ? [i] : []));
    const isAtEnd = peak >= times.length - 2;
    if (near.length < 5 || isAtEnd) {
      return [{ link, time: times[peak]!, sigma: Math.max(contact.sigma, times[1]! - times[0]!) }];
    }
    const [fit] = localFit(
      near.map((i) => times[i]!),
      [near.map((i) => values[i]!)],
      near.map(() => Math.max(noise, 1e-6)),
      times[peak]!,
      2,
    );
    const { slope, curvature, slopeSigma } = fit!;
    const shift = curvature < 0 ? Math.max(-AROUND, Math.min(AROUND, -slope / curvature)) : 0;
    const sigma = Math.min(AROUND, slopeSigma / Math.max(Math.abs(curvature), 1e-9));
    return [{ link, time: times[peak]! + shift, sigma: Math.hypot(sigma, times[1]! - times[0]!) }];
  });
}

export interface Order {
  /** Neighbours whose order is the chain's, beyond doubt. */
  readonly inOrder: number;
  /** Neighbours too close to call. */
  readonly ties: number;
  readonly pairs: number;
}

/** Neighbours in the chain compared: in order, tied within 1.96 σ, or the other way round. */
export function orderOf(steps: readonly Step[]): Order {
  let [inOrder, ties] = [0, 0];
  for (let i = 1; i < steps.length; i++) {
    const [near, far] = [steps[i - 1]!, steps[i]!];
    const lead = far.time - near.time;
    const doubt = 1.96 * Math.hypot(near.sigma, far.sigma);
    if (Math.abs(lead) <= doubt) ties++;
    else if (lead > 0) inOrder++;
  }
  return { inOrder, ties, pairs: Math.max(0, steps.length - 1) };
}
