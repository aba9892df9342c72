/** What the view guide promises is what the readings of known strikes give, view by view. */
import { describe, expect, it } from 'vitest';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { clean } from '@sinew/fighters/fighter/recipe';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { analyze } from '../src/analysis/analyze';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { markOnFrame } from '../src/measure/events/events';
import type { Readings } from '../src/measure/measures/allMeasures';
import { isAbsent } from '../src/foundation/reading/reading';
import { techniqueById, VIEWS, type View } from '../src/foundation/technique/techniques';
import {
  answersOf,
  bestView,
  cameraPlace,
  questionById,
  questionsFor,
  QUESTIONS,
} from '../src/foundation/technique/questions';
import { trackFromPlaced } from '../src/observe/track/track';

const TECHNIQUES: readonly TechniqueId[] = [
  'jab',
  'cross',
  'lead-hook',
  'rear-uppercut',
  'elbow-round',
  'round-kick',
];

/** Readings of a clean strike with every landmark placed on every second frame. */
function readingsFrom(technique: TechniqueId, view: View): Readings {
  const recipe = clean(technique);
  const truth = truthOf({ ...DEMO_CLIPS[0]!, view, recipe });
  const frameTimes = frameTimesOf(recipe, DEMO_CLIPS[0]!.rate);
  const placed = frameTimes.flatMap((_, frame) =>
    frame % 2 === 0
      ? LANDMARKS.map((landmark) => ({ landmark, frame, ...truth.at(landmark, frame) }))
      : [],
  );
  const marks = Object.fromEntries(
    Object.entries(truth.frames).map(([event, f]) => [event, markOnFrame(frameTimes, f)]),
  );
  const { calibration, strike } = truth;
  const track = trackFromPlaced(placed, frameTimes, 720);
  return analyze({ strike, track, calibration, marks }).readings;
}

describe.each(TECHNIQUES)('the view guide for a %s', (id) => {
  const technique = techniqueById(id);
  it.each(VIEWS)('promises %s what its readings give', (view) => {
    const readings = readingsFrom(id, view);
    const wrong = questionsFor(technique).flatMap((question) => {
      const isPromised = question.answer(technique)[view] === 'measured';
      const given = question.readings.filter(
        (reading) => !isAbsent(readings[reading as keyof Readings]),
      );
      const isGiven = given.length === question.readings.length;
      return isPromised === isGiven ? [] : [`${question.id}: ${given.join(' ') || 'nothing'}`];
    });
    expect(wrong).toEqual([]);
  });
});

describe('the view guide', () => {
  it('has a reason wherever a view does not measure', () => {
    for (const id of TECHNIQUES) {
      const technique = techniqueById(id);
      for (const question of questionsFor(technique)) {
        const answers = question.answer(technique);
        const silent = VIEWS.filter((view) => answers[view] !== 'measured' && !question.why[view]);
        expect([question.id, silent]).toEqual([question.id, []]);
      }
    }
  });

  it('sends the camera where the question is answered best', () => {
    const cross = techniqueById('cross');
    // With bands it is measured from behind; without, an eye there tells more than a ladder is worth.
    expect(bestView(questionById('order'), cross)).toBe('behind');
    expect(bestView(questionById('order'), cross, true)).toBe('behind');
    expect(answersOf(questionById('order'), cross, true).behind).toBe('measured');
    expect(answersOf(questionById('order'), cross, false).behind).toBe('by eye');
    expect(bestView(questionById('speed'), cross)).toBe('side');
    expect(bestView(questionById('speed'), techniqueById('lead-hook'))).not.toBe('side');
  });

  it('asks for 100 frames a second where a lead of 30 ms is to be seen', () => {
    expect(questionById('order').rate).toBeCloseTo(100, 9);
    expect(QUESTIONS.every(({ rate }) => rate >= 30)).toBe(true);
  });

  // A lens that sees 41° up and down holds 0.75 of its distance (2 tan 20.5°; geometry).
  it('puts the camera so far off that the student and a third more fit in', () => {
    const { distance, height } = cameraPlace(questionById('feet'), 'side', 1.8);
    expect(2 * distance * Math.tan((20.5 * Math.PI) / 180)).toBeCloseTo(1.35 * 1.8, 9);
    expect(height).toBeLessThan(0.6);
    expect(cameraPlace(questionById('order'), 'above', 1.8).distance).toBe(0);
  });

  it('knows its questions by name only', () => {
    expect(() => questionById('colour')).toThrow(RangeError);
  });
});
