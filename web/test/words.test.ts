/** Words that were said once and are said no more: a coach reads one word for one thing. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const SCREENS = fileURLToPath(new URL('../src', import.meta.url));

/** What nobody says any more, and what is said instead. */
const RETIRED: readonly (readonly [RegExp, string])[] = [
  [/\bSo it is\b/, 'Confirm'],
  [/\bNot so\b/, 'Wrong'],
  [/\bNot now\b/, 'Later, or Cancel'],
  [/\bGive it up\b/, 'Stop looking'],
  [/\bPut it away\b/, 'Leave it out'],
  [/\bGround to end\b/, 'Chain, feet to fist'],
  [/\brides\b/, 'neutral'],
  [/\bGood enough\b/, 'Fixed'],
];

const texts = readdirSync(SCREENS, { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.tsx') || /screens.*\.ts$/.test(name))
  .map((name) => [name, readFileSync(join(SCREENS, name), 'utf8')] as const);

it.each(RETIRED.map(([word, now]) => [word.source, now, word] as const))(
  'no screen says %s: it is %s',
  (_, __, word) => {
    expect(texts.length).toBeGreaterThan(150);
    expect(texts.filter(([, text]) => word.test(text)).map(([name]) => name)).toEqual([]);
  },
);
