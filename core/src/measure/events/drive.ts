/**
 * The start of the drive: when the leg on the striking side begins to push. One film of a tracked body shows it
 * where it does not show the hips turn; it is never the start of the hips.
 */
import { sided } from '../../foundation/body/landmarks';
import type { Technique } from '../../foundation/technique/techniques';
import type { Motion } from '../../reconstruct/motion/motion';
import { travelOf } from '../../reconstruct/motion/speeds';
import { markAt, type EventMark } from './events';
import { startOf } from './starts';

/** Straights from a stance that stands: elsewhere known strikes do not show that it holds. */
const DRIVEN: readonly Technique['id'][] = ['cross', 'whip-straight', 'chambered-straight'];

/** The heel comes up, the knee and the hip above it come forward. */
const SIGNS = ['Heel', 'Knee', 'Hip'] as const;

/** A start that is less sure than this is no sign, seconds. */
const LEAST_SURE = 0.04;
/** How far the signs of known strikes lie around the start of the hips, seconds, one standard deviation. */
const VARIES = 0.009;
/** And of bodies that are tracked in one film. */
const TRACKED = 0.015;

/** @returns null where no two signs agree on it */
export function proposeDrive(
  motion: Motion,
  technique: Technique,
  contact: EventMark,
): EventMark | null {
  // From behind the heel comes up where a heel hardly moves in the picture, and was 30 ms late.
  if (!DRIVEN.includes(technique.id) || motion.view === 'behind' || motion.view === 'above') {
    return null;
  }
  const signs = SIGNS.flatMap((part) => {
    const series = travelOf(motion, [sided(motion.striking, part)], 'raw');
    const start = startOf(series, motion, contact.time, { of: 'creeping' });
    return start && start.sigma < LEAST_SURE ? [start] : [];
  });
  const agreeing = signs.map((one) =>
    signs.filter(
      (other) => Math.abs(other.time - one.time) < 2 * Math.hypot(one.sigma, other.sigma, VARIES),
    ),
  );
  const most = agreeing.reduce<readonly EventMark[]>(
    (best, group) => (group.length > best.length ? group : best),
    [],
  );
  if (most.length < 2) return null;
  const weights = most.map(({ sigma }) => 1 / (sigma ** 2 + VARIES ** 2));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const time = most.reduce((sum, one, i) => sum + weights[i]! * one.time, 0) / total;
  const strays = motion.raw.leftHip?.isTracked ? TRACKED : 0;
  return markAt(
    motion.frameTimes,
    time,
    Math.hypot(1 / Math.sqrt(total), VARIES, strays),
    motion.source,
  );
}
