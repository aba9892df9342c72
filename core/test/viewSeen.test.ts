/** From where a film was taken, told by the body in it. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { mover } from '@sinew/fighters/fighter/pose';
import { viewGuess, viewSeen } from '../src/observe/track/viewSeen';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { VIEWS } from '../src/foundation/technique/techniques';
import type { PictureTrack } from '../src/observe/track/track';

const TECHNIQUES = Object.keys(FORMS) as TechniqueId[];
const SAMPLING = { rate: 60, noise: 0.01, seed: 1 };

describe('a strike of every technique, from each view', () => {
  it.each(VIEWS)('%s is known, in both stances; a view declared wrongly is put right', (view) => {
    for (const technique of TECHNIQUES) {
      for (const stance of ['orthodox', 'southpaw'] as const) {
        const { track } = knownPicture(clean(technique, { stance }), view, SAMPLING);
        expect(viewGuess(track), `${technique} ${stance}`).toBe(view);
        for (const declared of VIEWS) {
          const told = viewSeen(track, declared);
          expect(told, `${technique} ${stance} as ${declared}`).toBe(
            declared === view ? null : view,
          );
        }
      }
    }
  });
});

/** A cross as a camera so many degrees from the target sees it, pixels. */
function from(degrees: number): Pick<PictureTrack, 'points'> {
  const [cos, sin] = [Math.cos, Math.sin].map((of) => of((degrees * Math.PI) / 180)) as [
    number,
    number,
  ];
  const pose = mover(clean('cross'));
  const frames = Array.from({ length: 20 }, (_, i) => i);
  const bodies = frames.map((i) => pose(i / 60));
  return {
    points: Object.fromEntries(
      LANDMARKS.map((landmark) => {
        const at = bodies.map((body) => body[landmark]);
        const x = at.map(([ahead, , right]) => 400 * (ahead * sin - right * cos));
        return [landmark, { frames, x, y: at.map(([, up]) => -400 * up), sigma: frames }];
      }),
    ),
  };
}

it('takes no side between two views', () => {
  for (const corner of [40, 50]) {
    expect(viewSeen(from(corner), 'front'), `${corner}`).toBeNull();
    expect(viewSeen(from(corner), 'side'), `${corner}`).toBeNull();
  }
  expect(viewGuess(from(45))).toBeNull();
  expect(viewGuess(from(65))).toBe('side');
  expect(viewSeen(from(45), 'behind')).not.toBeNull();
  expect(viewSeen(from(80), 'front')).toBe('side');
});

it('says nothing of few frames, or without a head', () => {
  const { points } = from(90);
  const few = Object.fromEntries(
    Object.entries(points).map(([name, { x, y, sigma }]) => [
      name,
      { frames: [0, 1, 2], x: x.slice(0, 3), y: y.slice(0, 3), sigma },
    ]),
  );
  expect(viewSeen({ points: few }, 'front')).toBeNull();
  const { nose: _, ...headless } = points;
  expect(viewSeen({ points: headless }, 'front')).toBeNull();
});
