/**
 * The turn of hips and ribs that worn bands tell, as a motion: two lines over the floor, seen from above, of
 * which only the directions mean anything.
 */
import { otherSide } from '../../foundation/body/landmarks';
import { strikeStance, type Strike } from '../../foundation/technique/strike';
import type { BandTurn, BandTurns } from '../../observe/band/bandTurns';
import { EVENLY, turnSignOf, type Motion, type Path } from './motion';

/** @param frameTimes real time of every frame of the film, seconds */
export function motionFromBands(
  { hips, ribs, isSquareKnown }: BandTurns,
  frameTimes: readonly number[],
  strike: Strike,
): Motion {
  const isMirrored = strikeStance(strike) === 'southpaw';
  const striking = isMirrored ? otherSide(strike.side) : strike.side;
  const end = (turn: BandTurn, sign: 1 | -1): Path => ({
    frames: turn.frames,
    times: turn.frames.map((frame) => frameTimes[frame]!),
    along: [
      turn.yaw.map((yaw) => (sign * Math.sin(yaw)) / 2),
      turn.yaw.map((yaw) => (sign * Math.cos(yaw)) / 2),
    ],
    // Both ends of a line one long: each has half of the variance of its direction.
    sigma: turn.shake.map((sigma) => sigma / Math.SQRT2),
    bias: turn.lasting.map((sigma) => sigma / Math.SQRT2),
    hangs: 0,
    isTracked: false,
  });
  const paths = {
    ...(hips && { leftHip: end(hips, -1), rightHip: end(hips, 1) }),
    ...(ribs && { leftShoulder: end(ribs, -1), rightShoulder: end(ribs, 1) }),
  };
  return {
    source: 'measured-band',
    view: 'above',
    axes: ['toward', 'right'],
    metric: false,
    scaleSigma: 0,
    deep: EVENLY,
    planeSigma: 0,
    azimuth: null,
    aslant: 0,
    isSquareKnown,
    isByHand: false,
    frameTimes,
    striking,
    isMirrored,
    end: strike.technique.end,
    isSmoothed: false,
    turnSign: turnSignOf(striking, strike.technique),
    raw: paths,
    paths,
  };
}
