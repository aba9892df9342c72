/** One list of words: whole, without twins, and the page in docs is its print. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { GLOSSARY, glossaryPage } from '../src/analysis/glossary';
import { PHASES } from '../src/measure/events/phases';
import { EVENTS } from '../src/measure/events/events';

const terms = GLOSSARY.flatMap((group) => group.terms);

it('names every phase and every instant, each once, with a whole sentence', () => {
  const names = terms.map(({ term }) => term);
  for (const { name } of PHASES) expect(names).toContain(name);
  expect(names.filter((name) => name.startsWith('The instant'))).toHaveLength(EVENTS.length);
  expect(new Set(names).size).toBe(names.length);
  for (const { term, meaning } of terms) expect(meaning, term).toMatch(/^[A-Z“].*\.$/s);
});

it('is the page in docs: run `npx sinew words > docs/words.md` after a change', () => {
  const path = fileURLToPath(new URL('../../docs/words.md', import.meta.url));
  expect(readFileSync(path, 'utf8')).toBe(glossaryPage());
});
