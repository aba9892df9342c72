import { expect, it } from 'vitest';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { isAbsent } from '../src/foundation/reading/reading';
import { techniqueById } from '../src/foundation/technique/techniques';
import { markOnFrame } from '../src/measure/events/events';
import { measureOne } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import type { Path } from '../src/reconstruct/motion/motion';
import { motionOf, pathOf, TIMES } from './spaceMotion';

/** Hips that sink by 4 cm from 0.3 to 0.5 s. */
const hips = pathOf((time) => [0, 1 - 0.2 * Math.min(0.2, Math.max(0, time - 0.3)), 0]);
const on = (path: Path, frames: readonly number[]): Path => ({
  ...path,
  frames,
  times: frames.map((frame) => TIMES[frame]!),
  along: path.along.slice(0, 2).map((values) => frames.map((frame) => values[frame]!)),
  sigma: frames.map(() => 0.002),
  bias: frames.map(() => 0),
});

it('the hips tell the sink where the rest of the body is placed at contact alone, and own up to it', () => {
  const few = on(hips, [144]);
  const rest = Object.fromEntries(LANDMARKS.map((landmark) => [landmark, few]));
  const placed = on(hips, [64, 72, 80, 88, 96, 104, 112, 120, 132, 144]);
  const paths = { ...rest, leftHip: placed, rightHip: placed };
  const sink = measureOne('sink', {
    strike: { technique: techniqueById('cross'), side: 'right' },
    events: {
      load: markOnFrame(TIMES, 72),
      hips: markOnFrame(TIMES, 120),
      contact: markOnFrame(TIMES, 144),
    },
    motion: motionOf(paths, { view: 'side', axes: ['toward', 'up'], planeSigma: 0.02 }),
    body: UNKNOWN_BODY,
  });
  if (isAbsent(sink)) throw new Error(sink.absent);
  expect(sink.value).toBeCloseTo(0.04, 6);
  expect(sink.sigma).toBeGreaterThan(0.006);
});
