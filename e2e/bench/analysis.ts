/** How long the core takes for one strike: dense 3D track, and points placed by hand. */
import { analyze } from '@sinew/core/analyze';
import { markOnFrame } from '@sinew/core/events/events';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { trackFromPlaced } from '@sinew/core/track/track';
import { clean } from '@sinew/demo/fighter/recipe';
import { frameTimesOf, knownTrack } from '@sinew/demo/fighter/track';
import { DEMO_CLIPS } from '@sinew/demo/gym/clips';
import { truthOf } from '@sinew/demo/gym/truth';

function time(name: string, act: () => void): void {
  for (let i = 0; i < 20; i++) act();
  const times = Array.from({ length: 100 }, () => {
    const start = performance.now();
    act();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  console.log(
    `${name}: median ${times[50]!.toFixed(2)} ms, 95 % under ${times[95]!.toFixed(2)} ms`,
  );
}

const recipe = clean('cross');
const track = knownTrack(recipe, { rate: 240, noise: 0.002, seed: 1 });
const marks = { contact: markOnFrame(track.frameTimes, Math.round(recipe.contact * 240)) };
const strike = { technique: techniqueById('cross'), side: 'right' as const };
time(`23 landmarks in 3D, ${track.frameTimes.length} frames at 240 a second`, () => {
  analyze({ strike, track, marks });
});

const clip = DEMO_CLIPS[0]!;
const truth = truthOf(clip);
const frameTimes = frameTimesOf(clip.recipe, clip.rate);
const placed = trackFromPlaced(truth.placed(2), frameTimes, 720);
const allMarks = Object.fromEntries(
  Object.entries(truth.frames).map(([event, frame]) => [event, markOnFrame(frameTimes, frame)]),
);
time('8 marks and points on every second frame of a film', () => {
  analyze({ strike: truth.strike, track: placed, calibration: truth.calibration, marks: allMarks });
});
