/**
 * `npm run mutants`: breaks the measuring and the judging on purpose, a place at a time, and sees whether
 * the tests notice. Mutants written by hand first (`mutants/named.mjs`), then operators changed by Stryker
 * on a seeded sample of lines. Hours; writes `docs/testing.md`.
 *
 * `npm run mutants uncertainty`: Stryker's alone, in what every ± comes from; `docs/testing-uncertainty.md`.
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
/** The files that every ± comes from. */
const UNCERTAINTY = [
  'foundation/uncertainty',
  'foundation/signal/kriging.ts',
  'foundation/signal/localFit.ts',
  'foundation/signal/noise.ts',
  'foundation/signal/spikes.ts',
  'foundation/signal/stopping.ts',
  'measure/events/changePoint.ts',
  'measure/measures/run.ts',
  'reconstruct/motion/clean.ts',
];
const isUncertainty = process.argv.includes('uncertainty');
const SEED = 20261128;
/** Lines that give at least 400 mutants; 200 where only the ± is looked at. */
const LINES = Number(process.env.SINEW_MUTANT_LINES ?? (isUncertainty ? 140 : 560));
const CONFIG = 'vitest.mutants.config.ts';
/** The tests that hold the mutants written by hand. */
const PROMISES = 'core/test/promises.test.ts';

ensurePackages();
process.chdir(root);

const named = (isUncertainty ? [] : NAMED).map((mutant) => {
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

const files = (isUncertainty ? UNCERTAINTY : ROOMS)
  .flatMap((place) =>
    place.endsWith('.ts')
      ? [join('core/src', place)]
      : readdirSync(join('core/src', place), { recursive: true })
          .filter((name) => name.endsWith('.ts') && !name.startsWith('rows/'))
          .map((name) => join('core/src', place, name)),
  )
  .sort();
const lines = sampledLines(files, LINES, SEED);
const stryker = new Stryker({
  testRunner: 'vitest',
  vitest: { configFile: CONFIG, related: false },
  mutate: lines.map(({ file, line }) => `${file}:${line}-${line}`),
  // Words are held by the tests of sentences, and are no part of a number.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  coverageAnalysis: 'perTest',
  ignorePatterns: [
    ...['.next', 'cli', 'demo', 'docs', 'e2e', 'web'].map((name) => `/${name}`),
    // Two that tests of the core read: the page of words, and what a band reader made of a film.
    '!/docs/words.md',
    '!/demo/detections/*.bands.json',
  ],
  tempDirName: '.mutants',
  reporters: ['clear-text', 'progress-append-only'],
  clearTextReporter: { reportTests: false, reportMutants: false, logTests: false },
  concurrency: Number(process.env.SINEW_MUTANT_AT_ONCE ?? 2),
  // A machine that is busy with something else kills no mutant.
  timeoutMS: 45_000,
  timeoutFactor: 1.25,
  allowEmpty: false,
});
const results = await stryker.runMutationTest();
rmSync('.mutants', { recursive: true, force: true });

const page = isUncertainty ? 'docs/testing-uncertainty.md' : 'docs/testing.md';
writeFileSync(page, pageOf({ named, results, files, lines, seed: SEED }));
run(bin('prettier'), ['--write', '--log-level', 'warn', page]);
if (named.some(({ isKilled }) => !isKilled)) process.exitCode = 1;
