/** What is told of films as one phone takes them, from many places, of bodies with bands on. */
import { describe, expect, it } from 'vitest';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import type { MeasureId } from '@sinew/core/measure/measures/allMeasures';
import { PHONE_FILMS } from '../src/accuracy/phoneFilms';
import { readPhoneFilm } from '../src/accuracy/phoneRead';
import { isSearched, searchedIn } from '../src/accuracy/phoneSearches';

/** A quarter of all that are planned, with each kind of band and none; docs/accuracy.md has the rest. */
const films = PHONE_FILMS.filter(isSearched)
  .slice(0, 24)
  .map((film) => readPhoneFilm(film, searchedIn(film)));

describe('films as one phone takes them', () => {
  it('tell numbers within whose ± the exact body’s lie', () => {
    const told = films.flatMap(({ film, told: { readings }, exact }) =>
      Object.entries(readings).flatMap(([id, reading]) => {
        const truth = exact.readings[id as MeasureId];
        if (isAbsent(reading) || isAbsent(truth)) return [];
        const isWithin = Math.abs(reading.value - truth.value) <= halfWidth(reading);
        return [{ what: `${film.id} ${id}`, isWithin }];
      }),
    );
    const wrong = told.filter(({ isWithin }) => !isWithin).map(({ what }) => what);
    expect(told.length).toBeGreaterThan(800);
    expect(wrong.length / told.length, wrong.join(', ')).toBeLessThan(0.05);
  });

  it('tell a turn by bands only', () => {
    const turns = films.flatMap(({ told: { readings } }) =>
      (['turn.pelvis', 'turn.trunk', 'separation.max'] as const).flatMap((id) => {
        const reading = readings[id];
        return isAbsent(reading) ? [] : [reading.source];
      }),
    );
    expect(turns.length).toBeGreaterThan(20);
    expect(new Set(turns)).toEqual(new Set(['measured-band']));
  });

  it('tell loads and starts within their ±', () => {
    const misses = films.flatMap(({ film, told: { events }, truth }) =>
      (['load', 'hips', 'trunk'] as const).flatMap((link) => {
        const mark = events[link];
        if (!mark) return [];
        const miss = mark.time + film.starts - truth.times[link]!;
        return [{ what: `${film.id} ${link}`, isWithin: Math.abs(miss) <= 1.96 * mark.sigma }];
      }),
    );
    const wrong = misses.filter(({ isWithin }) => !isWithin).map(({ what }) => what);
    expect(misses.length).toBeGreaterThan(30);
    expect(wrong.length / misses.length, wrong.join(', ')).toBeLessThan(0.1);
  });

  it('have hardly a check decided that the exact body decides otherwise', () => {
    const checks = films.flatMap(({ film, told, exact }) =>
      told.findings.map(({ fault, status }) => {
        const truth = exact.findings.find((one) => one.fault === fault)?.status;
        const isOther =
          (status === 'found' && truth === 'clear') || (status === 'clear' && truth === 'found');
        return { what: `${film.id} ${fault} ${status}`, status, isOther };
      }),
    );
    const other = checks.filter(({ isOther }) => isOther).map(({ what }) => what);
    expect(checks.filter(({ status }) => status !== 'cant-tell').length).toBeGreaterThan(50);
    expect(other.length / checks.length, other.join(', ')).toBeLessThanOrEqual(0.005);
  });
});
