/**
 * `npm run mutants`: breaks the measuring and the judging on purpose, a place at a time, and sees whether
 * the tests notice. Mutants written by hand first (`mutants/named.mjs`), then operators changed by Stryker
 * on a seeded sample of lines. Under an hour; writes `docs/testing.md`.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Stryker } from '@stryker-mutator/core';
import { NAMED } from './mutants/named.mjs';
import { pageOf } from './mutants/page.mjs';
import { sampledLines } from './mutants/sample.mjs';
import { bin, ensurePackages, root, run } from './lib/setup.mjs';

/** The rooms whose numbers and judgements the coach trusts. */
const ROOMS = [
  'foundation/uncertainty',
  'observe/track',
  'reconstruct',
  'measure',
  'judge/fault',
  'judge/cost',
];
const SEED = 20261128;
/** Lines that give at least 400 mutants. */
const LINES = Number(process.env.SINEW_MUTANT_LINES ?? 560);
const CONFIG = 'vitest.mutants.config.ts';
/** The tests that hold the mutants written by hand. */
const PROMISES = 'core/test/promises.test.ts';

ensurePackages();
process.chdir(root);

const named = NAMED.map((mutant) => {
  const text = readFileSync(join('core/src', mutant.file), 'utf8');
  if (text.split(mutant.find).length !== 2) {
    throw new Error(`${mutant.file} does not have “${mutant.find}” exactly once`);
  }
  const { status } = spawnSync(
    bin('vitest'),
    ['run', '--config', CONFIG, '--bail', '1', PROMISES],
    {
      env: { ...process.env, SINEW_MUTANT: mutant.name },
    },
  );
  console.log(`${status === 0 ? 'SURVIVES' : 'killed  '} ${mutant.name}`);
  return { ...mutant, isKilled: status !== 0 };
});

const files = ROOMS.flatMap((room) =>
  readdirSync(join('core/src', room), { recursive: true })
    .filter((name) => name.endsWith('.ts') && !name.startsWith('rows/'))
    .map((name) => join('core/src', room, name)),
).sort();
const lines = sampledLines(files, LINES, SEED);
const stryker = new Stryker({
  testRunner: 'vitest',
  vitest: { configFile: CONFIG, related: false },
  mutate: lines.map(({ file, line }) => `${file}:${line}-${line}`),
  // Words are held by the tests of sentences, and are no part of a number.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  coverageAnalysis: 'perTest',
  ignorePatterns: ['.next', 'cli', 'demo', 'docs', 'e2e', 'web'].map((name) => `/${name}`),
  tempDirName: '.mutants',
  reporters: ['clear-text', 'progress-append-only'],
  clearTextReporter: { reportTests: false, reportMutants: false, logTests: false },
  concurrency: 2,
  // A machine that is busy with something else kills no mutant.
  timeoutMS: 45_000,
  timeoutFactor: 1.25,
  allowEmpty: false,
});
const results = await stryker.runMutationTest();
rmSync('.mutants', { recursive: true, force: true });

writeFileSync('docs/testing.md', pageOf({ named, results, files, lines, seed: SEED }));
run(bin('prettier'), ['--write', '--log-level', 'warn', 'docs/testing.md']);
if (named.some(({ isKilled }) => !isKilled)) process.exitCode = 1;
