import { expect, it } from 'vitest';
import { markOnFrame } from '../src/measure/events/events';
import { measureOne } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { techniqueById } from '../src/foundation/technique/techniques';
import { motionOf, pathOf, TIMES, type Place } from './spaceMotion';

/** Knuckles a hand's length before the wrist, each point as unsure as is said, metres. */
const wrist = (sigma: number) => {
  const still = (...at: Place) => ({ ...pathOf(() => at), sigma: TIMES.map(() => sigma) });
  return measureOne('wrist.flex', {
    strike: { technique: techniqueById('cross'), side: 'right' },
    events: { contact: markOnFrame(TIMES, 144) },
    motion: motionOf({
      rightElbow: still(0, 1.4, 0),
      rightWrist: still(0.26, 1.4, 0),
      rightIndexKnuckle: still(0.34, 1.4, 0.03),
      rightLittleKnuckle: still(0.34, 1.4, -0.03),
    }),
    body: UNKNOWN_BODY,
  });
};

it('an angle that may be any angle is none', () => {
  expect(wrist(0.003)).toMatchObject({ unit: 'rad' });
  expect(wrist(0.12)).toMatchObject({
    absent: 'What is seen of the wrist is too unsure to mean anything; place its points by hand.',
  });
});
