/** What a body does that is not the strike: it sways, breathes, drifts, and a foot slips. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { progress, type Profile } from './profile';
import { add, mix, type Point } from './space';

export interface Idle {
  /** Metres of sway to the target and to the right, at the height of the head. */
  readonly sway: readonly [number, number];
  /** Times a second. */
  readonly swayRate: number;
  /** Metres that the shoulders rise and fall with each breath. */
  readonly breath: number;
  readonly breathRate: number;
  /** Radians a second by which hips and shoulders turn all the while. */
  readonly turn: number;
  /** Metres a second by which the body goes to the target all the while. */
  readonly drift: number;
  /** Metres that the rear foot slips back under the strike. */
  readonly slip: number;
  /** Radians: where in sway and breath the film begins. */
  readonly phase: number;
}

export const STILL: Idle = {
  sway: [0, 0],
  swayRate: 0.4,
  breath: 0,
  breathRate: 0.3,
  turn: 0,
  drift: 0,
  slip: 0,
  phase: 0,
};

type Joints = Readonly<Record<Landmark | 'head', Point>>;

const SLIPS: Readonly<Partial<Record<Landmark, number>>> = {
  rightToe: 1,
  rightHeel: 1,
  rightAnkle: 1,
  rightKnee: 0.5,
};

/** Share of something that begins at one height and is whole at another, metres. */
const between = (height: number, from: number, to: number) =>
  Math.min(1, Math.max(0, (height - from) / (to - from)));

/**
 * A pose with what the body does beside it: the feet stay, the hips take part, the head most.
 *
 * @param slipping when the foot slips
 */
export function withIdle<T extends Joints>(
  pose: T,
  idle: Idle,
  time: number,
  slipping: Profile,
): T {
  if (idle === STILL) return pose;
  const wave = (rate: number, at: number) => Math.sin(2 * Math.PI * rate * time + at);
  const swayed = [wave(idle.swayRate, idle.phase), wave(0.8 * idle.swayRate, 2 * idle.phase)];
  const breathed = idle.breath * wave(idle.breathRate, 3 * idle.phase);
  const middle = mix(pose.leftHip, pose.rightHip, 0.5);
  const slipped = -idle.slip * progress(slipping, time);
  const moved = (point: Point, slips: number): Point => {
    const height = point[1];
    const above = between(height, 0.12, 0.85);
    const angle = above * idle.turn * time;
    const [x, z] = [point[0] - middle[0], point[2] - middle[2]];
    const turned: Point = [
      middle[0] + x * Math.cos(angle) + z * Math.sin(angle),
      height,
      middle[2] - x * Math.sin(angle) + z * Math.cos(angle),
    ];
    const share = (above * height) / 1.7;
    return add(turned, [
      share * idle.sway[0] * swayed[0]! + above * idle.drift * time + slips * slipped,
      breathed * between(height, 1, 1.4),
      share * idle.sway[1] * swayed[1]!,
    ]);
  };
  const all = [...LANDMARKS, 'head'] as const;
  return Object.fromEntries(
    all.map((name) => [name, moved(pose[name], name === 'head' ? 0 : (SLIPS[name] ?? 0))]),
  ) as T;
}
