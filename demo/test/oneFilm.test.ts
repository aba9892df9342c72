/** What is said of one film of a strike, searched by the app's own body tracker, nothing corrected. */
import { describe, expect, it } from 'vitest';
import { heldAgainst } from '@sinew/fighters/trials/measured';
import { glimpseAtTheMat } from '@sinew/core/analysis/atTheMat';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { project } from '@sinew/fighters/film/camera';
import { angleAt } from '@sinew/core/foundation/geometry/vector';
import { carriedOf } from '@sinew/fighters/fighter/carried';
import { durationOf, mover, type Pose } from '@sinew/fighters/fighter/pose';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { measure } from '@sinew/core/analysis/analyze';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { EMPTY_DOCUMENT } from '@sinew/core/analysis/clipDocument';
import { trackedOf } from '@sinew/core/analysis/clipFacts';
import { libraryFrom, NO_EDITS } from '@sinew/core/judge/library/edits';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { FAULTY_FIGHTERS } from '@sinew/fighters/fighter/faults';
import type { Recipe } from '@sinew/fighters/fighter/recipe';
import { frameTimesOf, trackOf } from '@sinew/fighters/fighter/track';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { detectionsIn } from '../src/gym/tracked';
import { readFilm } from '../src/accuracy/oneFilm';
import { keptSearch } from '../src/accuracy/searches';
import {
  FAULTY_FILMS,
  SECOND_FILMS,
  TRIED_FILMS,
  TRIED_RATE,
  type TriedFilm,
} from '../src/accuracy/trackedFilms';

const read = TRIED_FILMS.flatMap((film) => {
  const search = keptSearch(film.id);
  return search ? [{ film, ...readFilm(film, search) }] : [];
});

describe('one film, tracked', () => {
  it('says of nearly all numbers a ± that the truth lies within, and of none wildly else', () => {
    const trials = read.flatMap(({ film, truth, told }) =>
      heldAgainst(film.recipe.technique, truth, told, true).trials.map((trial) => ({
        ...trial,
        film: film.id,
      })),
    );
    const wrong = trials.filter(({ isCovered }) => !isCovered);
    const names = wrong.map(({ film, what }) => `${film} ${what}`).join(', ');
    expect(trials.length).toBeGreaterThan(15);
    expect(wrong.length / trials.length, names).toBeLessThan(0.1);
    // Half as far again at the most.
    const wild = wrong.filter(({ error, sigma }) => Math.abs(error) > 3 * sigma);
    expect(wild.map(({ film, what }) => `${film} ${what}`)).toEqual([]);
  });

  it('finds no leak that is not there', () => {
    const found = read.flatMap(({ film, told }) =>
      told.findings
        .filter(({ status }) => status === 'found')
        .map(({ fault }) => `${film.id} ${fault}`),
    );
    expect(found.filter((one) => one !== 'jammed jammed')).toEqual([]);
    expect(read.length).toBeGreaterThan(10);
  });
});

it('a leak that the side shows is found in one film, none is said not to be there, and none made up', () => {
  const said = FAULTY_FILMS.map((film) => {
    const { findings } = readFilm(film, keptSearch(film.id)!).told;
    const found = findings.filter(({ status }) => status === 'found').map(({ fault }) => fault);
    return { leak: film.id, own: findings.find(({ fault }) => fault === film.id)?.status, found };
  });
  const ownOf = (status: string) => said.flatMap(({ leak, own }) => (own === status ? [leak] : []));
  expect(ownOf('found')).toEqual(['reach-lean', 'weight-back']);
  expect(ownOf('clear')).toEqual([]);
  for (const { leak, found } of said) {
    const { also } = FAULTY_FIGHTERS.find(({ fault }) => fault === leak)!;
    expect(found.filter((one) => one !== leak && !also?.includes(one))).toEqual([]);
  }
});

it('of what the tracker gets wrong about half is the same half a second later', () => {
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  const pairs = read.flatMap(({ film, times, tracking }) => {
    const pose = mover(film.recipe);
    const errors = (landmark: Landmark, along: 'x' | 'y', from: number, to: number) => {
      const seen = tracking.track.points[landmark];
      return (seen?.frames ?? []).flatMap((frame, i) => {
        const late = times[frame]! - film.recipe.contact;
        if (late < from || late > to) return [];
        const at = project(film.camera, pose(times[frame]!)[landmark]);
        return [seen![along][i]! - at[along]];
      });
    };
    return LANDMARKS.flatMap((landmark) =>
      (['x', 'y'] as const).flatMap((along) => {
        const [guard, hit] = [
          errors(landmark, along, -0.55, -0.45),
          errors(landmark, along, -0.05, 0.02),
        ];
        return guard.length > 3 && hit.length > 3 ? [[middle(guard), middle(hit)] as const] : [];
      }),
    );
  });
  const sum = (of: (a: number, b: number) => number) =>
    pairs.reduce((total, [a, b]) => total + of(a, b), 0);
  const likeness = sum((a, b) => a * b) / Math.sqrt(sum((a) => a * a) * sum((_, b) => b * b));
  expect(pairs.length).toBeGreaterThan(200);
  expect(likeness).toBeGreaterThan(0.45);
  expect(likeness).toBeLessThan(0.75);
});

describe('one film in the app, with what the tracker guesses of the body in space', () => {
  const analysed = (
    recipe: Recipe,
    rate: number,
    detections: readonly PoseDetection[],
    heightM: number | null,
  ) => {
    const frameTimes = frameTimesOf(recipe, rate);
    const strike = {
      id: 'one',
      technique: recipe.technique,
      side: 'right' as const,
      marks: { contact: { frame: nearestFrame(frameTimes, recipe.contact), width: 3 } },
    };
    const document = { ...EMPTY_DOCUMENT, strikes: [strike] };
    const film = { frameTimes, width: 1280, height: 720 };
    const clip = {
      document,
      film: { ...film, tracked: trackedOf(detections, film, document) },
      student: { school: {}, stance: 'orthodox' as const, heightM, massKg: null },
      second: null,
    };
    return analyzeClip(clip, strike, libraryFrom(NO_EDITS)).findings.flatMap((one) =>
      one.status === 'found' ? [one.fault] : [],
    );
  };

  it.each([true, false])('finds no leak that is not there, the height known: %s', (isKnown) => {
    const made = read
      .filter(({ film }) => film.view === 'side')
      .flatMap(({ film }) =>
        analysed(
          film.recipe,
          TRIED_RATE,
          keptSearch(film.id)!,
          isKnown ? film.recipe.height : null,
        ).map((fault) => `${film.id} ${fault}`),
      );
    expect(made.filter((one) => one !== 'jammed jammed')).toEqual([]);
    const clip = DEMO_CLIPS.find(({ file }) => file === 'cross-jammed.mp4')!;
    const { recipe, rate, file } = clip;
    const found = analysed(recipe, rate, detectionsIn(file)!, isKnown ? recipe.height : null);
    expect(found).toContain('jammed');
    expect(found.filter((one) => !['jammed', 'chin-open'].includes(one))).toEqual([]);
  });
});

describe('the legs in one film from the side', () => {
  // A sole that is pitched, a knee in its own plane, the weight between the feet: from the exact body.
  const truths = ({ recipe }: (typeof TRIED_FILMS)[number]) => {
    const pose = mover({ ...recipe, stance: 'orthodox' });
    const at = (side: 'left' | 'right', part: 'Heel' | 'Toe', time: number) =>
      pose(time)[`${side}${part}`][1];
    const guard = recipe.contact - 0.5;
    const { leftHip, leftKnee, leftAnkle } = pose(recipe.contact);
    return {
      'stance.rearHeel': at('right', 'Heel', guard) - at('right', 'Toe', guard),
      'heel.rear': at('right', 'Heel', recipe.contact) - at('right', 'Toe', recipe.contact),
      'heel.lead': at('left', 'Heel', recipe.contact) - at('left', 'Toe', recipe.contact),
      'knee.lead': angleAt(leftHip, leftKnee, leftAnkle),
      'shift.travel': carriedOf(recipe, truthOfStrike(recipe))['shift.travel']!,
    };
  };

  it('lie within their ±, none wildly off, and most are told', () => {
    const told = read
      .filter(({ film }) => film.view === 'side')
      .flatMap(({ film, told: { readings } }) =>
        Object.entries(truths(film)).flatMap(([id, truth]) => {
          const measured = readings[id as keyof typeof readings];
          if (isAbsent(measured)) return [];
          const error = measured.value - truth;
          return [{ what: `${film.id} ${id} ${error}`, error, half: halfWidth(measured) }];
        }),
      );
    const wrong = told.filter(({ error, half }) => Math.abs(error) > half);
    expect(told.length).toBeGreaterThan(35);
    expect(wrong.length / told.length, wrong.map(({ what }) => what).join(', ')).toBeLessThan(0.1);
  });

  it('decide what a side view can: the front knee, the other shoulder, the way of the weight, the lean', () => {
    const sides = read.filter(({ film }) => film.view === 'side');
    const decided = (fault: string) =>
      sides.filter(({ told }) =>
        told.findings.some((one) => one.fault === fault && one.status === 'clear'),
      ).length;
    for (const [fault, share] of [
      ['knee-locks', 0.75],
      ['reach-lean', 0.75],
      ['no-counter', 0.9],
      ['weight-back', 0.4],
    ] as const) {
      expect(decided(fault), fault).toBeGreaterThanOrEqual(share * sides.length);
    }
  });
});

describe('a hit at the mat, of two dozen frames', () => {
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  const heights = {
    guard: ({ nose, leftWrist }: Pose) => nose[1] - leftWrist[1],
    level: ({ leftHip, rightHip }: Pose) => -(leftHip[1] + rightHip[1]) / 2,
  };

  it('is told with a ± that the truth lies within', () => {
    const told = read.flatMap(({ film, times }) => {
      const { recipe } = film;
      const search = new Map(keptSearch(film.id)!.map((one) => [one.frame, one]));
      const pose = mover(recipe);
      return [-0.15, 0, 0.2].flatMap((late) => {
        const hit = recipe.contact + late;
        const near = (time: number) => (time > hit - 0.3 ? 4 : 11);
        const frames = times
          .map((_, frame) => frame)
          .filter((frame) => frame % near(times[frame]!) === 0);
        const glimpse = glimpseAtTheMat(
          {
            detections: frames.flatMap((frame, i) => {
              const seen = search.get(frame);
              return seen ? [{ ...seen, frame: i }] : [];
            }),
            times: frames.map((frame) => times[frame]!),
            width: 1280,
            height: 720,
            hit,
          },
          { technique: 'cross', stance: 'orthodox', view: film.view, heightM: recipe.height },
        );
        const from = (a: number, b: number, height: (of: Pose) => number) =>
          middle(
            times
              .filter((time) => time >= hit + a && time <= hit + b)
              .map((time) => height(pose(time))),
          );
        return (['guard', 'level'] as const).flatMap((id) => {
          const measured = glimpse[id];
          if (isAbsent(measured)) return [];
          const truth = from(-0.05, 0.05, heights[id]) - from(-0.9, -0.5, heights[id]);
          const error = measured.value - truth;
          return [{ what: `${film.id} ${late} ${id}`, id, error, half: halfWidth(measured) }];
        });
      });
    });
    const wrong = told.filter(({ error, half }) => Math.abs(error) > half);
    expect(told.filter(({ id }) => id === 'level').length).toBeGreaterThan(20);
    expect(told.filter(({ id }) => id === 'guard').length).toBeGreaterThan(6);
    expect(wrong.length / told.length, wrong.map(({ what }) => what).join(', ')).toBeLessThan(0.1);
  });
});

describe('films from the sides, the front, behind and corners, and two of one take', () => {
  const films = [...TRIED_FILMS, ...FAULTY_FILMS, ...SECOND_FILMS].filter(
    ({ id, recipe }) => keptSearch(id) && recipe.technique === 'cross',
  );
  const film = (id: string) => films.find((one) => one.id === id)!;

  /** As the app reads a film that is on the disk, from `cut` frames on. */
  function onDisk(one: TriedFilm & { azimuth?: number }, cut = 0) {
    const frameTimes = frameTimesOf(one.recipe, TRIED_RATE).slice(cut);
    const { view, azimuth } = one;
    const document = { ...EMPTY_DOCUMENT, view, ...(azimuth !== undefined && { azimuth }) };
    const facts = { frameTimes, width: 1280, height: 720 };
    const search = keptSearch(one.id)!.filter(({ frame }) => frame >= cut);
    const shifted = search.map((found) => ({ ...found, frame: found.frame - cut }));
    return { document, film: { ...facts, tracked: trackedOf(shifted, facts, document) } };
  }

  function analysed(id: string, other?: string) {
    const one = onDisk(film(id));
    const cut = 12;
    const second = other === undefined ? null : onDisk(film(other), cut);
    const frame = nearestFrame(one.film.frameTimes, film(id).recipe.contact);
    const strike = { ...STRIKE, marks: { contact: { frame, width: 1 } } };
    const offset = { seconds: -cut / TRIED_RATE, sigma: 0.002, by: 'sound', pairs: 1 } as const;
    return analyzeClip(
      {
        document: { ...one.document, strikes: [strike] },
        film: one.film,
        student: { school: {}, stance: 'orthodox', heightM: 1.76, massKg: 70 },
        second: second && { ...second, offset },
      },
      strike,
      libraryFrom(NO_EDITS),
    );
  }
  const STRIKE = { id: 'strike', technique: 'cross', side: 'right' } as const;

  /** What the exact body reads, all but free of noise. */
  const exactly = (recipe: Recipe) => {
    const track = trackOf(mover(recipe), durationOf(recipe), { rate: 480, noise: 0.0003, seed: 1 });
    const { technique, side } = truthOfStrike(recipe);
    const frame = nearestFrame(track.frameTimes, recipe.contact);
    return measure({
      track,
      strike: { technique, side, stance: recipe.stance },
      marks: { contact: markOnFrame(track.frameTimes, frame) },
      body: { mass: 70, height: recipe.height },
    }).readings;
  };

  it('whatever they show or guess lies within its ± of what the exact body reads', () => {
    const exact = new Map<string, ReturnType<typeof exactly>>();
    const told = films.flatMap(({ id, recipe }) => {
      const key = JSON.stringify(recipe);
      if (!exact.has(key)) exact.set(key, exactly(recipe));
      const truths = exact.get(key)!;
      return Object.entries(analysed(id).readings).flatMap(([name, one]) => {
        const truth = truths[name as keyof typeof truths];
        if (isAbsent(one) || isAbsent(truth)) return [];
        const isWithin = Math.abs(one.value - truth.value) <= halfWidth(one) + halfWidth(truth);
        return [{ what: `${id} ${name}`, isWithin, isGuess: one.source === 'estimated-3d' }];
      });
    });
    for (const isGuess of [true, false]) {
      const own = told.filter((one) => one.isGuess === isGuess);
      const wrong = own.filter(({ isWithin }) => !isWithin).map(({ what }) => what);
      expect(own.length).toBeGreaterThan(100);
      expect(wrong.length / own.length, wrong.join(', ')).toBeLessThan(0.06);
    }
  });

  it('a hand that the body hides from the first film is read in the second', () => {
    const alone = analysed('guard-off-drop').readings['guard.drop'];
    expect(isAbsent(alone)).toBe(true);
    const together = analysed('guard-off-drop', 'guard-off-drop-lead').readings['guard.drop'];
    const truth = exactly(film('guard-off-drop').recipe)['guard.drop'];
    if (isAbsent(together) || isAbsent(truth)) throw new Error('nobody sees the hand');
    expect(together.isElsewhere).toBe(true);
    expect(Math.abs(together.value - truth.value)).toBeLessThan(halfWidth(together));
  });

  it.each([
    ['usual', 'usual-lead'],
    ['usual-rear', 'usual'],
    ['usual-lead', 'usual-rear'],
    ['front', 'behind'],
  ])(
    '%s and %s of a sound strike: no leak is found, and no fewer checks are decided',
    (id, other) => {
      const decided = (one: ReturnType<typeof analysed>) =>
        one.findings.filter(({ status }) => status !== 'cant-tell').length;
      const together = analysed(id, other);
      expect(together.findings.filter(({ status }) => status === 'found')).toEqual([]);
      expect(decided(together)).toBeGreaterThanOrEqual(decided(analysed(id)));
      expect(together.space).toHaveProperty('problem');
    },
  );
});
