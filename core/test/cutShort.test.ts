/** Films that end too early: what is not in them is not told. */
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { expect, it } from 'vitest';
import { measure } from '../src/analysis/analyze';
import { lowerBound } from '../src/foundation/signal/interpolate';
import { markOnFrame } from '../src/measure/events/events';
import type { SpaceTrack } from '../src/observe/track/track';
import { nearestFrame } from '../src/observe/track/time';

/** The film's frames up to a time, seconds. */
function until(track: SpaceTrack, time: number): SpaceTrack {
  const last = lowerBound(track.frameTimes, time);
  const points = Object.entries(track.points).map(([name, { frames, x, y, z, sigma }]) => {
    const count = lowerBound(frames, last);
    const cut = (values: readonly number[]) => values.slice(0, count);
    return [name, { frames: cut(frames), x: cut(x), y: cut(y), z: cut(z!), sigma: cut(sigma) }];
  });
  return {
    ...track,
    frameTimes: track.frameTimes.slice(0, last),
    points: Object.fromEntries(points) as SpaceTrack['points'],
  };
}

function homeOf(technique: 'cross' | 'rear-hook' | 'rear-uppercut' | 'round-kick', cut?: number) {
  const recipe = clean(technique);
  const whole = knownTrack(recipe, { rate: 120, noise: 0.002, seed: 5 });
  const track = cut === undefined ? whole : until(whole, recipe.contact + cut);
  const contact = nearestFrame(track.frameTimes, recipe.contact);
  const truth = truthOfStrike(recipe);
  const { events } = measure({
    track,
    strike: { technique: truth.technique, side: truth.side, stance: recipe.stance },
    marks: { contact: markOnFrame(track.frameTimes, contact) },
    body: { mass: 70, height: recipe.height },
  });
  return { home: events.home, truth: truth.times.home! };
}

it.each(['cross', 'rear-hook', 'rear-uppercut', 'round-kick'] as const)(
  'a %s whose film ends on the way home is home in none of its frames',
  (technique) => {
    const whole = homeOf(technique);
    expect(Math.abs(whole.home!.time - whole.truth)).toBeLessThan(0.05);
    for (const cut of [0.08, 0.12, 0.16]) expect(homeOf(technique, cut).home).toBeUndefined();
  },
);
