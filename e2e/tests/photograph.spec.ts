/** The body tracker on photographs of real people, from Debian's opencv-doc. */
import { expect } from '@playwright/test';
import { LANDMARKS, sided, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { SEEN_SIZE } from '@sinew/core/observe/track/poseDetection';
import { trackerBrowser } from '@sinew/demo/accuracy/tracked';
import { test } from '../support/test';

const PHOTOGRAPHS = '/usr/share/doc/opencv-doc/examples/data';

test('a person in a photograph is found, and is put together as people are', async () => {
  const browser = await trackerBrowser();
  try {
    const { width, height, people } = await browser.look(
      `${PHOTOGRAPHS}/basketball1.png`,
      'standard',
    );
    expect(people.length).toBeGreaterThan(0);
    const [person] = people;
    const at = (landmark: Landmark) => {
      const i = LANDMARKS.indexOf(landmark) * SEEN_SIZE;
      return {
        x: person![i]!,
        y: person![i + 1]!,
        visibility: person![i + 2]!,
        space: person!.slice(i + 3, i + 6),
      };
    };
    const apart = (a: Landmark, b: Landmark) =>
      Math.hypot(...at(a).space.map((value, k) => value - at(b).space[k]!));

    // Inside the picture, head over hips over feet.
    for (const landmark of ['nose', 'leftHip', 'rightHip'] as const) {
      const { x, y, visibility } = at(landmark);
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(width);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(height);
      expect(visibility).toBeGreaterThan(0.5);
    }
    const hips = (at('leftHip').y + at('rightHip').y) / 2;
    expect(at('nose').y).toBeLessThan(hips);
    expect((at('leftAnkle').y + at('rightAnkle').y) / 2).toBeGreaterThan(hips);

    // Left and right alike, and links in the proportions of people (Drillis & Contini 1966: upper arm
    // 0.186, forearm 0.146, thigh 0.245, shank 0.246 of height; give or take a third).
    const length = (
      near: 'Shoulder' | 'Elbow' | 'Hip' | 'Knee',
      far: 'Elbow' | 'Wrist' | 'Knee' | 'Ankle',
    ) => (['left', 'right'] as const).map((side) => apart(sided(side, near), sided(side, far)));
    const [upper, fore, thigh, shank] = [
      length('Shoulder', 'Elbow'),
      length('Elbow', 'Wrist'),
      length('Hip', 'Knee'),
      length('Knee', 'Ankle'),
    ];
    for (const [left, right] of [upper, fore, thigh, shank] as [number, number][]) {
      expect(left / right).toBeGreaterThan(0.67);
      expect(left / right).toBeLessThan(1.5);
    }
    const mean = ([a, b]: number[]) => (a! + b!) / 2;
    for (const [ratio, expected] of [
      [mean(fore!) / mean(upper!), 0.146 / 0.186],
      [mean(shank!) / mean(thigh!), 0.246 / 0.245],
      [mean(upper!) / mean(thigh!), 0.186 / 0.245],
    ] as const) {
      expect(ratio / expected).toBeGreaterThan(0.67);
      expect(ratio / expected).toBeLessThan(1.5);
    }
    expect(apart('leftShoulder', 'rightShoulder')).toBeGreaterThan(apart('leftHip', 'rightHip'));
  } finally {
    await browser.close();
  }
});

test('where there is nobody, nobody is found', async () => {
  const browser = await trackerBrowser();
  try {
    const { people } = await browser.look(`${PHOTOGRAPHS}/fruits.jpg`, 'standard');
    expect(people).toEqual([]);
  } finally {
    await browser.close();
  }
});
