/** One phone at the mat: a strike as a far, level camera at some azimuth sees it, and when a link is half turned. */
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { strikingSide, type Strike } from '@sinew/core/foundation/technique/strike';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { viewAt } from '@sinew/core/foundation/technique/views';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { seeStrike, type MarkedFilm } from '@sinew/core/analysis/seenStrike';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { HAND_PLACING_SIGMA, type PictureTrack } from '@sinew/core/observe/track/track';
import { framesOfTurn, TURN_POINTS } from '@sinew/core/observe/track/turnMarks';
import type { Calibration } from '@sinew/core/reconstruct/calibration/calibration';
import { mover } from '../fighter/pose';
import type { Recipe } from '../fighter/recipe';
import { frameTimesOf } from '../fighter/track';

/** Pixels a metre, and by how many a point is off. */
const SCALE = 300;
const NOISE = 2;

/** A camera far away at hip height, at an azimuth as orthodox students count it. */
function seenFrom(recipe: Recipe, azimuth: number, rate: number, seed: number): PictureTrack {
  const random = seeded(seed);
  const frameTimes = frameTimesOf(recipe, rate);
  const poses = frameTimes.map(mover(recipe));
  const [sin, cos] = [Math.sin(azimuth), Math.cos(azimuth)];
  const side = recipe.stance === 'southpaw' ? -1 : 1;
  const frames = frameTimes.map((_, i) => i);
  const points = Object.fromEntries(
    LANDMARKS.map((name) => {
      const shaken = (of: (at: readonly [number, number, number]) => number) =>
        poses.map((pose) => SCALE * of(pose[name]) + NOISE * normal(random));
      return [
        name,
        {
          frames,
          x: shaken(([x, , z]) => side * x * sin - z * cos),
          y: shaken(([, y]) => -y),
          sigma: frames.map(() => NOISE),
        },
      ];
    }),
  );
  return { space: '2d', source: 'measured-2d', placingSigma: NOISE, frameTimes, points };
}

/** The same strike whose tracker turns hips and shoulders too little, and whose turn the coach has marked. */
export function seeMarked(recipe: Recipe, azimuth: number, rate: number, seed: number) {
  const exact = seenFrom(recipe, azimuth, rate, seed);
  const placed = framesOfTurn(exact.frameTimes, recipe.contact).flatMap((frame) =>
    TURN_POINTS.map((landmark) => {
      const { x, y } = exact.points[landmark]!;
      return { landmark, frame, x: x[frame]!, y: y[frame]! };
    }),
  );
  const points = Object.fromEntries(
    Object.entries(exact.points).map(([name, own]) => [name, { ...own, isTracked: true }]),
  );
  for (const ends of [
    ['leftHip', 'rightHip'],
    ['leftShoulder', 'rightShoulder'],
  ] as const) {
    const [left, right] = ends.map((end) => exact.points[end]!);
    ends.forEach((end, i) => {
      const own = i === 0 ? left! : right!;
      const x = own.x.map((at, k) => {
        const middle = (left!.x[k]! + right!.x[k]!) / 2;
        return middle + UNDER_TURNED * (at - middle);
      });
      points[end] = { ...own, x, isTracked: true };
    });
  }
  const marked = { placed, pictureHeight: NOISE / HAND_PLACING_SIGMA };
  return seeTrack({ ...exact, points }, recipe, azimuth, marked);
}

/** A body tracker sees so much of a turn. */
const UNDER_TURNED = 0.7;

export const see = (recipe: Recipe, azimuth: number, rate: number, seed: number) =>
  seeTrack(seenFrom(recipe, azimuth, rate, seed), recipe, azimuth);

function seeTrack(track: PictureTrack, recipe: Recipe, azimuth: number, marked?: MarkedFilm) {
  const technique = techniqueById(recipe.technique);
  const strike: Strike = {
    technique,
    side: strikingSide(technique, recipe.stance),
    stance: recipe.stance,
  };
  const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, recipe.contact));
  const forward = Math.sin(azimuth) > 0 === (recipe.stance === 'orthodox') ? 1 : -1;
  const calibration: Calibration = {
    view: viewAt(azimuth),
    azimuth,
    scale: { from: { x: 0, y: 0 }, to: { x: SCALE, y: 0 }, metres: 1, sigma: 0.01 },
    target: { from: { x: 0, y: 0 }, to: { x: forward, y: 0 } },
  };
  const seen = seeStrike({ track, calibration, ...(marked && { marked }) }, strike, { contact });
  return { strike, ...seen, body: { mass: 70, height: recipe.height } };
}

/** When a link has turned half of the way from its deepest coil to contact, by small steps. */
export function halfTurn(recipe: Recipe, part: 'Hip' | 'Shoulder'): number {
  const pose = mover({ ...recipe, stance: 'orthodox' });
  // A lead hand's strike turns the rear side back.
  const sign = techniqueById(recipe.technique).hand === 'lead' ? -1 : 1;
  const yaw = (time: number) => {
    const now = pose(time);
    const [left, right] = [now[`left${part}`], now[`right${part}`]];
    return sign * Math.atan2(right[0] - left[0], right[2] - left[2]);
  };
  const { contact } = recipe;
  const times = Array.from({ length: 1000 }, (_, i) => contact - 0.5 + (0.5 * i) / 1000);
  const deepest = times.reduce((a, b) => (yaw(b) < yaw(a) ? b : a));
  const middle = (yaw(deepest) + yaw(contact)) / 2;
  return times.find((time) => time > deepest && yaw(time) >= middle)!;
}
