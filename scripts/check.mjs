/**
 * `npm run check`: for every few minutes of work. Types, lint, house and format of what has changed
 * since the last commit, and the tests that are changed, or among the few that look at it.
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { cruise } from 'dependency-cruiser';
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config';
import config from '../.dependency-cruiser.mjs';
import { runBeside } from './lib/beside.mjs';
import { bin, root } from './lib/setup.mjs';

process.chdir(root);
const git = (...args) => spawnSync('git', args, { encoding: 'utf8' }).stdout.split('\n');
const changed = [
  ...new Set([
    ...git('diff', '--name-only', 'HEAD'),
    ...git('ls-files', '--others', '--exclude-standard'),
  ]),
].filter((name) => name && existsSync(name));
const code = changed.filter((name) => /\.(ts|tsx|mjs)$/.test(name));

const { output } = await cruise(
  ['core', 'fighters', 'cli', 'demo', 'web/src', 'web/test', 'e2e'],
  { ...config.options, ruleSet: config, validate: true },
  undefined,
  { tsConfig: extractTSConfig('tsconfig.json') },
);
const { violations } = output.summary;
console.log(violations.length === 0 ? 'good  house' : 'FAIL  house');
for (const { rule, from, to } of violations) console.log(`  ${rule.name}: ${from} → ${to}`);

const isTest = (name) => /\.test\.tsx?$/.test(name);
/** What more tests than this look at is left to `npm test`. */
const FEW = 3;
const tests = new Set(code.filter(isTest));
for (const { source, dependents } of output.modules) {
  const own = code.includes(source) ? dependents.filter(isTest) : [];
  if (own.length <= FEW) for (const one of own) tests.add(one);
}

const results = [violations.length === 0];
if (code.length > 0) {
  const lint = runBeside('lint', bin('eslint'), [
    '--max-warnings',
    '0',
    '--no-warn-ignored',
    ...code,
  ]);
  const types = runBeside('types', process.execPath, ['scripts/types.mjs']);
  results.push(...(await Promise.all([lint, types])));
}
if (changed.length > 0) {
  const args = ['--check', '--ignore-unknown', '--log-level', 'warn', ...changed];
  results.push(await runBeside('format', bin('prettier'), args));
}
if (tests.size > 0) {
  results.push(await runBeside(`${tests.size} test files`, bin('vitest'), ['run', ...tests]));
}
process.exit(results.every(Boolean) ? 0 : 1);
