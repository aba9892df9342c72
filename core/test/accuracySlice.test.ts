/**
 * A fast slice of the accuracy study (`npm run accuracy` makes the whole): every fault, clearly there,
 * in every technique that it is tried in, one seed each; and every technique without a fault. In space
 * at 240 frames a second with 2 mm of noise, instants marked.
 */
import { describe, expect, it } from 'vitest';
import { cleanJudged, EXACT, faultsJudged, SPACE } from '@sinew/fighters/trials/judged';

const filming = SPACE.find(({ rate, isMarked }) => rate === 240 && isMarked)!;
const said = faultsJudged(filming, ['clear']);
const called = (outcome: string) =>
  said
    .filter((one) => one.outcome === outcome)
    .map(({ fault, technique }) => `${fault} ${technique}`);

describe('what is clearly there', () => {
  it('is found in 98 of 100', () => {
    expect(called('found').length / said.length).toBeGreaterThan(0.98);
  });

  it('can be told, all of it', () => {
    expect(called('cant-tell')).toEqual([]);
  });

  it('is never said not to be there', () => {
    expect(called('clear')).toEqual([]);
  });

  it('brings no fault with it that is not there', () => {
    expect(said.flatMap(({ made }) => made)).toEqual([]);
  });
});

it('a leak that is clearly put in is there: without noise none is said not to be', () => {
  const missed = faultsJudged(EXACT, ['clear']).filter(({ outcome }) => outcome === 'clear');
  expect(missed.map(({ fault, technique }) => `${fault} ${technique}`)).toEqual([]);
});

it('a sound strike of any technique shows no fault, and is told of nearly all', () => {
  const clean = cleanJudged(filming, [1]);
  expect(clean.flatMap(({ technique, made }) => made.map((one) => `${one} ${technique}`))).toEqual(
    [],
  );
  const told = clean.reduce((sum, one) => sum + one.told, 0);
  const judged = clean.reduce((sum, one) => sum + one.judged, 0);
  expect(told / judged).toBeGreaterThan(0.9);
});
