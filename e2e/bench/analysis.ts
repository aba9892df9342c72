/** How long the core takes: one strike, with and without draws; a take of ten minutes. */
import { judgeMeasured, measure } from '@sinew/core/analysis/analyze';
import { measureInClip, type ClipInput } from '@sinew/core/analysis/analyzeClip';
import { EMPTY_DOCUMENT, type StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { rulesFor } from '@sinew/core/analysis/rules';
import { assumed } from '@sinew/core/reconstruct/calibration/assumed';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { cleanDetections, trackFrom } from '@sinew/core/observe/track/trackFromDetections';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { trackFromPlaced, type SpaceTrack } from '@sinew/core/observe/track/track';
import { libraryFrom, NO_EDITS } from '@sinew/core/judge/library/edits';
import { comboTrack } from '@sinew/fighters/fighter/combo';
import { clean } from '@sinew/fighters/fighter/recipe';
import { detected } from '@sinew/fighters/fighter/detected';
import { frameTimesOf, knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { CAMERAS } from '@sinew/fighters/film/camera';
import { time } from './time';

const recipe = clean('cross', { contact: 1 });
const { technique, side } = truthOfStrike(recipe);
const strike = { technique, side };
const track = knownTrack(recipe, { rate: 240, noise: 0.002, seed: 1 });
const body = { mass: 70, height: 1.76 };
const dense = `23 landmarks in 3D, ${track.frameTimes.length} frames at 240 a second, all readings`;
time(`${dense}, σ to first order`, 40, () => {
  measure({ strike, track, marks: {}, body });
});
time(`${dense}, σ by 200 draws`, 40, () => {
  measure({ strike, track, marks: {}, body, draws: { count: 200, seed: 1 } });
});

const clip = DEMO_CLIPS[0]!;
const truth = truthOf(clip);
const frameTimes = frameTimesOf(clip.recipe, clip.rate);
const placed = trackFromPlaced(truth.placed(2), frameTimes, 720);
const allMarks = Object.fromEntries(
  Object.entries(truth.frames).map(([event, frame]) => [event, markOnFrame(frameTimes, frame)]),
);
time('8 marks and points on every second frame of a film', 100, () => {
  measure({ strike: truth.strike, track: placed, calibration: truth.calibration, marks: allMarks });
});

const seen = detected(recipe, CAMERAS.side, { rate: 240, noise: 1.5, seed: 1 });
const tracked = `23 landmarks tracked in one film, ${seen.frameTimes.length} frames at 240 a second`;
time(`${tracked}: mended`, 20, () => {
  cleanDetections(seen.detections, seen.frameTimes);
});
const base = cleanDetections(seen.detections, seen.frameTimes);
const dragged = { landmark: 'rightWrist' as const, frame: 200, x: 700, y: 200 };
const fitted = () => trackFrom(base, { placed: [dragged], corrections: [] }, 720);
time(`${tracked}: fitted anew to a point that is dragged`, 40, () => {
  fitted();
});
const tracking = fitted();
const calibration = assumed({ view: 'side', scale: null, target: null }, tracking, strike, 1.76);
time(`${tracked}: all readings`, 40, () => {
  measure({ strike, track: tracking.track, calibration, marks: {}, body });
});

// What an edit on the bench costs: the first of a combination of two, in a body that is measured in space.
const combo = comboTrack([clean('cross'), clean('jab')], [0.5], { rate: 240, noise: 0.002 });
const comboTimes = combo.track.frameTimes;
const frameOf = (at: number) => ({ frame: nearestFrame(comboTimes, at), width: 1 });
const strikes: StrikeDocument[] = (['cross', 'jab'] as const).map((id, i) => ({
  id,
  technique: id,
  side: i === 0 ? 'right' : 'left',
  combination: 'pair',
  marks: { contact: frameOf(combo.contacts[i]!) },
}));
const bench: ClipInput = {
  document: { ...EMPTY_DOCUMENT, strikes },
  film: {
    frameTimes: comboTimes,
    width: 1280,
    height: 720,
    series: { fileName: 'take.json', begins: 0, track: combo.track },
  },
  student: { school: {}, stance: 'orthodox', heightM: 1.76, massKg: 70 },
  second: null,
};
const [first] = strikes;
const alone = { ...bench, document: { ...bench.document, strikes: [first!] } };
const library = libraryFrom(NO_EDITS);
const measuring = time('one strike of a clip, measured', 20, () => {
  measureInClip(alone, { ...first!, combination: undefined });
});
const edit = time(
  'an edit on the bench, the strike followed by another: measured and judged',
  20,
  () => {
    const measured = measureInClip(bench, first!);
    judgeMeasured(
      measured,
      measured.facts.strike,
      rulesFor(first!, strikes, bench.student, library),
    );
  },
);
console.log(`an edit on the bench is worth ${(edit / measuring).toFixed(2)} runs of the analysis`);

/** The same strike somewhere in a take that stands still before and after it. */
function take(minutes: number): SpaceTrack {
  const one = knownTrack(recipe, { rate: 120, noise: 0.002, seed: 1 });
  const count = minutes * 60 * 120;
  const from = Math.floor(count / 2);
  const frameTimes = Array.from({ length: count }, (_, i) => i / 120);
  const frames = frameTimes.map((_, i) => i);
  const stretched = (values: readonly number[]) =>
    frames.map(
      (i) => values[Math.min(values.length - 1, Math.max(0, i - from))]! + ((i * 7919) % 13) / 1e4,
    );
  const points = Object.fromEntries(
    Object.entries(one.points).map(([name, { x, y, z }]) => [
      name,
      {
        frames,
        x: stretched(x),
        y: stretched(y),
        z: stretched(z!),
        sigma: frames.map(() => 0.002),
      },
    ]),
  );
  return { space: '3d', source: 'measured-3d', frameTimes, points };
}

for (const minutes of [2.5, 5, 10]) {
  const long = take(minutes);
  global.gc?.();
  const before = process.memoryUsage().heapUsed;
  const start = performance.now();
  measure({ strike, track: long, marks: {}, body });
  const took = performance.now() - start;
  const grown = (process.memoryUsage().heapUsed - before) / 2 ** 20;
  console.log(
    `a take of ${minutes} minutes at 120 a second (${long.frameTimes.length} frames): ${took.toFixed(0)} ms, ` +
      `heap grew by ${grown.toFixed(0)} MB`,
  );
}
