/** Motions in space by closed forms: one second at 240 frames a second, paths of the test's own. */
import type { Landmark } from '../src/foundation/body/landmarks';
import { EVENLY, type Motion, type Path } from '../src/reconstruct/motion/motion';

export const RATE = 240;
/** Seconds. */
export const TIMES = Array.from({ length: 241 }, (_, i) => i / RATE);

/** Metres along toward, up and right at a time. */
export type Place = readonly [toward: number, up: number, right: number];

/** A path with 2 mm of noise owned up to. */
export const pathOf = (at: (time: number) => Place): Path => ({
  frames: TIMES.map((_, i) => i),
  times: TIMES,
  along: [0, 1, 2].map((axis) => TIMES.map((time) => at(time)[axis]!)),
  sigma: TIMES.map(() => 0.002),
  bias: TIMES.map(() => 0),
  hangs: 0,
  isTracked: false,
});

/** Of nothing but these paths. */
export const motionOf = (
  paths: Partial<Record<Landmark, Path>>,
  change: Partial<Motion> = {},
): Motion => ({
  source: 'measured-3d',
  view: '3d',
  axes: ['toward', 'up', 'right'],
  metric: true,
  isSmoothed: false,
  scaleSigma: 0,
  deep: EVENLY,
  planeSigma: 0,
  isSquareKnown: true,
  isByHand: false,
  azimuth: null,
  aslant: 0,
  frameTimes: TIMES,
  striking: 'right',
  isMirrored: false,
  end: 'fist',
  turnSign: 1,
  raw: paths,
  paths,
  ...change,
});
