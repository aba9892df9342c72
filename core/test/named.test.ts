/** Mutants written by hand break a promise where it is written: they rot when it is written otherwise. */
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { NAMED } from '../../scripts/mutants/named.mjs';

it('every promise is still written where its mutant breaks it', () => {
  const lost = NAMED.filter(({ file, find }) => {
    const text = readFileSync(new URL(`../src/${file}`, import.meta.url), 'utf8');
    return text.split(find).length !== 2;
  });
  expect(lost.map(({ name }) => name)).toEqual([]);
});
