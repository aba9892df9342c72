/** What a body tracker's points tell of a strike's landing. */
import { describe, expect, it } from 'vitest';
import { markOnFrame } from '../src/measure/events/events';
import { measureOne } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { isAbsent } from '../src/foundation/reading/reading';
import { techniqueById } from '../src/foundation/technique/techniques';
import type { Motion } from '../src/reconstruct/motion/motion';
import { motionOf, pathOf, RATE, TIMES } from './spaceMotion';

const CONTACT = 144;

/** A fist that goes at 6 m/s, tracked; on some frames before contact somebody has placed it. */
function tracked(placed: readonly number[], change: Partial<Motion> = {}) {
  const plain = pathOf((time) => [6 * (time - 0.6), 1.4, 0]);
  const isPlaced = (frame: number) => placed.includes(frame);
  const path = {
    ...plain,
    bias: plain.frames.map((frame) => (isPlaced(frame) ? 0 : 0.02)),
    isTracked: true,
  };
  const paths = { rightIndexKnuckle: path, rightLittleKnuckle: path };
  return measureOne('speed.contact', {
    strike: { technique: techniqueById('cross'), side: 'right' },
    events: { contact: markOnFrame(TIMES, CONTACT) },
    motion: motionOf(paths, change),
    body: UNKNOWN_BODY,
  });
}
const SIDE = { view: 'side', axes: ['toward', 'up', 'right'] } as const;

describe('the speed of a tracked fist as it lands', () => {
  it('is refused in one film, with what to place and where', () => {
    const found = tracked([], SIDE);
    expect(found).toMatchObject({
      absent: expect.stringMatching(/least surely where it lands; place it on two or more frames/),
      missing: { landmarks: ['rightIndexKnuckle'], frame: CONTACT },
    });
  });

  it('is measured once it is placed on two of the last frames, or seen by two films', () => {
    expect(isAbsent(tracked([CONTACT], SIDE))).toBe(true);
    expect(isAbsent(tracked([CONTACT - 60, CONTACT], SIDE))).toBe(true);
    expect(tracked([CONTACT - 0.03 * RATE, CONTACT].map(Math.round), SIDE)).toMatchObject({
      unit: 'm/s',
    });
    expect(tracked([])).toMatchObject({ unit: 'm/s' });
  });
});

describe('the reach of a tracked straight from the side', () => {
  /** An arm stretched out at the target whose wrist is seen so far from its elbow around contact, metres. */
  const reach = (forearm: number, isTracked = true, id: 'reach' | 'elbow.contact' = 'reach') => {
    const isAround = (time: number) => Math.abs(time - CONTACT / RATE) < 0.1;
    const wrist = (time: number) => 0.3 + (isAround(time) ? forearm : 0.26);
    const seen = (at: (time: number) => number, up = 1.4) => ({
      ...pathOf((time) => [at(time), up, 0]),
      isTracked,
    });
    return measureOne(id, {
      strike: { technique: techniqueById('cross'), side: 'right' },
      events: { contact: markOnFrame(TIMES, CONTACT) },
      motion: motionOf(
        {
          rightShoulder: seen(() => 0),
          rightElbow: seen(() => 0.3, 1.38),
          rightWrist: seen(wrist),
          rightIndexKnuckle: seen((time) => wrist(time) + 0.08),
          rightLittleKnuckle: seen((time) => wrist(time) + 0.08, 1.36),
        },
        { ...SIDE, source: 'measured-2d' },
      ),
      body: UNKNOWN_BODY,
    });
  };

  it('is told while the forearm looks as long as it is', () => {
    for (const forearm of [0.26, 0.19]) {
      expect(reach(forearm)).toMatchObject({ unit: 'ratio' });
      expect(reach(forearm, true, 'elbow.contact')).toMatchObject({ unit: 'rad' });
    }
  });

  it('is not where the tracker has left the hand behind, which is no jammed strike', () => {
    for (const id of ['reach', 'elbow.contact'] as const) {
      expect(reach(0.1, true, id)).toMatchObject({
        absent: expect.stringMatching(/forearm looks too short .* right on that frame/),
      });
    }
    // Placed by hand it is what it is.
    expect(reach(0.1, false)).toMatchObject({ unit: 'ratio' });
  });
});
