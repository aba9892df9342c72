import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { NAMED } from './scripts/mutants/named.mjs';

const core = fileURLToPath(new URL('./core/src', import.meta.url));

/** Puts the mutant that `SINEW_MUTANT` names into the file it is of. */
function namedMutant(): Plugin {
  const mutant = NAMED.find(({ name }) => name === process.env['SINEW_MUTANT']);
  return {
    name: 'named-mutant',
    enforce: 'pre',
    transform(code, id) {
      if (!mutant || id !== `${core}/${mutant.file}`) return null;
      return code.replace(mutant.find, () => mutant.replace);
    },
  };
}

/** Tests that go through a whole strike, which take seconds; most mutants die before them. */
const SLOW = ['known', 'judge', 'set', 'properties', 'tracking', 'simulate', 'promises'];

class QuickFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]) {
    const rank = ({ moduleId }: TestSpecification) =>
      SLOW.some((name) => moduleId.endsWith(`/${name}.test.ts`)) ? 1 : 0;
    return files.sort((a, b) => rank(a) - rank(b) || (a.moduleId < b.moduleId ? -1 : 1));
  }
}

// What mutants are tried against: core's own tests, in threads that keep their modules, with every
// import of core led to the mutated files.
export default defineConfig({
  plugins: [namedMutant()],
  resolve: { alias: [{ find: /^@sinew\/core\/(.*)$/, replacement: `${core}/$1` }] },
  test: {
    include: ['core/test/**/*.test.ts'],
    // These try many strikes or films over and over; what they cover, others pin with one.
    exclude: [
      'accuracySlice',
      'coverage',
      'judgeSweep',
      'named',
      'questions',
      'schools',
      'sound',
      'swing',
      'techniques',
      'work',
    ].map((name) => `core/test/${name}.test.ts`),
    isolate: false,
    sequence: { sequencer: QuickFirst },
    testTimeout: 120_000,
  },
});
