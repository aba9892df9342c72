/**
 * Rows of tape, and printed bands as if they were tape, in films of the demo: in H.264, drawn without regard to
 * the reader.
 */
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { turnStarts } from '@sinew/core/measure/events/starts';
import { BANDS, wornOn } from '@sinew/core/observe/band/band';
import { turnsOf } from '@sinew/core/observe/band/bandTurns';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { motionFromBands } from '@sinew/core/reconstruct/motion/bandMotion';
import { cleaned } from '@sinew/core/reconstruct/motion/clean';
import { prepared } from '@sinew/core/reconstruct/motion/prepare';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { girthsAt } from '@sinew/fighters/film/wornBands';
import { detectionsIn, lookedAt, surveyIn } from '../src/gym/tracked';
import { bandsIn } from '../src/render/bandsIn';

const CROSSES = DEMO_CLIPS.filter(({ look, recipe }) => look.bands && recipe.technique === 'cross');

it.each(CROSSES)('$file tells when hips and trunk start, within ±', (film) => {
  const { recipe, rate, file } = film;
  const { stance, height, contact } = recipe;
  const survey = surveyIn(file);
  const kept = bandsIn({
    path: fileURLToPath(new URL(`../clips/${file}`, import.meta.url)),
    ...lookedAt(survey, rate),
    stance,
    detections: detectionsIn(file)!,
    worn: wornOn({ kind: 'tape', girths: girthsAt(height), seam: 'front' }),
  });
  expect(kept.kind).toBe('tape');
  // Bars are all alike: blurred in the turn, as tape they tell nothing of the hips, and it is not guessed.
  const told = film.look.bands === 'tape' ? BANDS : (['ribs'] as const);
  for (const band of told) {
    const { turn, silent } = kept.bands[band]!;
    const unread = silent.reduce((sum, { frames }) => sum + frames, 0);
    expect(turn!.frames.length).toBeGreaterThan(0.8 * (turn!.frames.length + unread));
    expect(turn!.frames.length).toBeGreaterThan(100);
  }
  const times = survey.amounts.map((_, i) => i / rate);
  const technique = techniqueById(recipe.technique);
  const truth = truthOfStrike(recipe);
  const whole = motionFromBands(turnsOf(kept), times, { technique, side: truth.side, stance });
  const { hips, trunk } = turnStarts(
    prepared(cleaned(whole), contact),
    technique,
    markOnFrame(times, nearestFrame(times, contact)),
  );
  const starts = { hips: [hips, truth.times.hips], ribs: [trunk, truth.times.trunk] } as const;
  for (const band of BANDS) {
    const [mark, time] = starts[band];
    if (!told.some((one) => one === band)) expect(mark).toBeUndefined();
    else {
      expect(Math.abs(mark!.time - time!)).toBeLessThan(1.96 * mark!.sigma);
      expect(mark!.sigma).toBeLessThan(0.012);
    }
  }
});
