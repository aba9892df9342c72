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
  bestPlace,
  bestView,
  cameraPlace,
  questionById,
  questionsFor,
  QUESTIONS,
} from '../src/foundation/technique/questions';
import { CAMERA_PLACES, cameraPlaceOf, viewAt } from '../src/foundation/technique/views';
import { showsTurn } from '../src/reconstruct/motion/sight';
import { clipCalibration } from '../src/analysis/clipCalibration';
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
    const order = bestPlace(questionById('order'), cross);
    expect(cameraPlaceOf(order.view, order.azimuth)?.name).toBe('rear corner, chest side');
    expect(bestPlace(questionById('order'), cross, true)).toEqual({ view: 'behind' });
    expect(bestPlace(questionById('speed'), cross)).toEqual({ view: 'side' });
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

describe('eight places round the student', () => {
  it('each belongs to one view, and a corner half-way is no side', () => {
    expect(CAMERA_PLACES.map(({ azimuth }) => viewAt(azimuth))).toEqual([
      ...['front', 'front', 'side', 'behind', 'behind', 'behind', 'side', 'front'],
    ]);
    for (const { azimuth } of CAMERA_PLACES) {
      expect(cameraPlaceOf(viewAt(azimuth), azimuth)?.azimuth).toBe(azimuth);
    }
  });

  it('a place is forgotten where another view has been said since, and taken for the one it is nearest to', () => {
    expect(cameraPlaceOf('front', Math.PI / 2)).toBeNull();
    expect(cameraPlaceOf('side', undefined)).toBeNull();
    expect(cameraPlaceOf('side', (100 * Math.PI) / 180)?.name).toBe('square, chest side');
    expect(cameraPlaceOf('behind', (-170 * Math.PI) / 180)?.name).toBe('behind');
  });

  it('the turn shows from where its lines grow all the way: see docs/accuracy.md', () => {
    const names = (isRearSide: boolean) =>
      CAMERA_PLACES.filter(({ azimuth }) => showsTurn(azimuth, isRearSide)).map(({ name }) => name);
    expect(names(true)).toEqual([
      'square, chest side',
      'rear corner, chest side',
      'square, back side',
      'front corner, back side',
    ]);
    expect(names(false)).toEqual([
      'at the target',
      'rear corner, chest side',
      'behind',
      'front corner, back side',
    ]);
  });

  it('turns and lengths of a film are read by the exact place, where it is of the view', () => {
    const set = { scale: null, target: null, rectangle: null, lens: null };
    const size = { width: 1280, height: 720 };
    const azimuth = (3 * Math.PI) / 4;
    const of = (view: View) => clipCalibration({ ...set, view, azimuth }, size).calibration.azimuth;
    expect(of('behind')).toBe(azimuth);
    expect(of('front')).toBeUndefined();
  });
});
