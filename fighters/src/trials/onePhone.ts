/** One phone at the mat: a strike as a far, level camera at some azimuth sees it, and when a link is half turned. */
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { strikingSide, type Strike } from '@sinew/core/foundation/technique/strike';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { viewAt } from '@sinew/core/foundation/technique/views';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { seeStrike } from '@sinew/core/analysis/seenStrike';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { nearestFrame } from '@sinew/core/observe/track/time';
import type { PictureTrack } from '@sinew/core/observe/track/track';
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

export function see(recipe: Recipe, azimuth: number, rate: number, seed: number) {
  const track = seenFrom(recipe, azimuth, rate, seed);
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
  const { motion, events } = seeStrike({ track, calibration }, strike, { contact });
  return { strike, motion, events, body: { mass: 70, height: recipe.height } };
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
