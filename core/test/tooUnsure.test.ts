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

/** The chin behind a shoulder, likewise. */
const chin = (sigma: number) => {
  const still = (...at: Place) => ({ ...pathOf(() => at), sigma: TIMES.map(() => sigma) });
  return measureOne('guard.chin', {
    strike: { technique: techniqueById('cross'), side: 'right' },
    events: { contact: markOnFrame(TIMES, 144) },
    motion: motionOf({
      nose: still(0.1, 1.6, 0),
      leftEar: still(0, 1.62, -0.08),
      rightEar: still(0, 1.62, 0.08),
      rightShoulder: still(0.1, 1.45, 0.1),
    }),
    body: UNKNOWN_BODY,
  });
};

it('a length that may be any on a body is none', () => {
  expect(chin(0.01)).toMatchObject({ unit: 'm' });
  expect(chin(0.4)).toMatchObject({
    absent: expect.stringMatching(/^Too unsure to mean anything/),
  });
});

it('an angle that may be any angle is none', () => {
  expect(wrist(0.003)).toMatchObject({ unit: 'rad' });
  expect(wrist(0.12)).toMatchObject({
    absent: 'Too unsure to mean anything; place its points by hand.',
  });
});

it('a share of two times that may be any share is none, and asks for the instants', () => {
  const recoil = (sigma: number) => {
    const at = (frame: number) => ({ ...markOnFrame(TIMES, frame), sigma });
    return measureOne('recoil', {
      strike: { technique: techniqueById('cross'), side: 'right' },
      events: { arm: at(100), contact: at(140), end: at(144), home: at(190) },
      motion: motionOf({}),
      body: UNKNOWN_BODY,
    });
  };
  expect(recoil(0.01)).toMatchObject({ unit: 'ratio' });
  expect(recoil(0.1)).toEqual({
    absent: 'Too unsure to mean anything; mark its instants yourself.',
  });
});
