/** Fails when a package asks for a newer Node than the README and `package.json` name. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import semver from 'semver';
import { root } from './lib/setup.mjs';

const read = (name) => JSON.parse(readFileSync(join(root, name), 'utf8'));
const { engines } = read('package.json');
/** The lowest of each line of Node that is named, such as 20.19.0 of `^20.19.0 || ^22.13.0`. */
const lowest = engines.node.split('||').map((range) => semver.minVersion(range).version);

const problems = Object.entries(read('package-lock.json').packages).flatMap(([name, about]) => {
  // Packages for other machines are never installed on this one.
  const isElsewhere = about.optional && (about.os || about.cpu);
  const asked = about.engines?.node;
  if (!asked || isElsewhere) return [];
  return lowest
    .filter((version) => !semver.satisfies(version, asked))
    .map((version) => `${name || 'sinew'} asks for Node ${asked}, which ${version} is not`);
});

const readme = readFileSync(join(root, 'README.md'), 'utf8');
for (const version of lowest) {
  const named = version.replace(/\.0$/, '');
  if (!readme.includes(named)) problems.push(`README.md does not name Node ${named}`);
}

if (problems.length > 0) {
  console.error(problems.join('\n'));
  process.exit(1);
}
