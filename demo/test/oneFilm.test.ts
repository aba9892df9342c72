/** What is said of one film of a strike, searched by the app's own body tracker, nothing corrected. */
import { describe, expect, it } from 'vitest';
import { heldAgainst } from '@sinew/fighters/trials/measured';
import { glimpseAtTheMat } from '@sinew/core/analysis/atTheMat';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import { mover, type Pose } from '@sinew/fighters/fighter/pose';
import { readFilm } from '../src/accuracy/oneFilm';
import { keptSearch } from '../src/accuracy/searches';
import { TRIED_FILMS } from '../src/accuracy/trackedFilms';

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
