/** What is said of one film of a strike, searched by the app's own body tracker, nothing corrected. */
import { describe, expect, it } from 'vitest';
import { heldAgainst } from '@sinew/fighters/trials/measured';
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
