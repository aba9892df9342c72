/** What a flawless coach would set on the benches of a take's films: its known answers, in pixels. */
import { EVENTS, markOnFrame, type EventName } from '@sinew/core/measure/events/events';
import type { Rectangle, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { EnvelopeMaker } from '@sinew/core/observe/sound/envelope';
import { findHits } from '@sinew/core/observe/sound/onsets';
import { offsetByEye, offsetBySound, type Offset } from '@sinew/core/observe/sound/sync';
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { nearestFrame } from '@sinew/core/observe/track/time';
import type { Placed } from '@sinew/core/observe/track/track';
import { knownTimes } from '../fighter/pose';
import { size, subtract, type Point } from '../fighter/space';
import { project } from './camera';
import { heardBy, SOUND_RATE } from './sound';
import { takeMover, type DemoTake, type TakeFilm } from './takes';

const rounded = ({ x, y }: PixelPoint): PixelPoint => ({
  x: Math.round(x * 8) / 8,
  y: Math.round(y * 8) / 8,
});

/** Seconds of the film's own clock. */
export function filmTimes(take: DemoTake, { starts, rate }: TakeFilm): number[] {
  return Array.from({ length: Math.floor((take.duration - starts) * rate) }, (_, i) => i / rate);
}

/** The taped mat as it is seen in a film. */
export function matSeen({ mat }: DemoTake, { camera }: TakeFilm): Rectangle {
  const [a, b, c] = mat as readonly [Point, Point, Point];
  return {
    kind: 'floor',
    corners: mat.map((corner) => rounded(project(camera, corner))),
    width: size(subtract(b, a)),
    depth: size(subtract(c, b)),
    height: 1,
  };
}

/** Frame of each event of a strike of the take. */
export function eventFrames(
  take: DemoTake,
  film: TakeFilm,
  index: number,
): Record<EventName, number> {
  const { recipe, at, from } = take.strikes[index]!;
  const known = knownTimes(recipe);
  const times = filmTimes(take, film);
  return Object.fromEntries(
    EVENTS.map((event) => [event, nearestFrame(times, at + known[event] - from - film.starts)]),
  ) as Record<EventName, number>;
}

/** Landmarks on the given frames of a film. */
export function placedIn(
  take: DemoTake,
  film: TakeFilm,
  frames: readonly number[],
  landmarks: readonly Landmark[] = LANDMARKS,
): Placed[] {
  const pose = takeMover(take);
  const times = filmTimes(take, film);
  return frames.flatMap((frame) => {
    const joints = pose(times[frame]! + film.starts);
    return landmarks.map((landmark) => ({
      landmark,
      frame,
      ...rounded(project(film.camera, joints[landmark])),
    }));
  });
}

/** How the two films' clocks differ: as their sound tells, or by the first contact seen in both. */
export function offsetOf(take: DemoTake): Offset {
  const [first, second] = take.films.map((film) => {
    const maker = new EnvelopeMaker(SOUND_RATE);
    maker.add(heardBy(take, film), 0);
    return findHits(maker.finish());
  });
  const found = offsetBySound(first!, second!, null);
  if (typeof found !== 'string') return found;
  const [a, b] = take.films.map((film) => {
    const times = filmTimes(take, film);
    return markOnFrame(times, eventFrames(take, film, 0).contact);
  });
  return offsetByEye(a!, b!);
}
