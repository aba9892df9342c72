import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vitest/config';
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

// What mutants are tried against: core's own tests, in threads that keep their modules, with every
// import of core led to the mutated files.
export default defineConfig({
  plugins: [namedMutant()],
  resolve: { alias: [{ find: /^@sinew\/core\/(.*)$/, replacement: `${core}/$1` }] },
  test: {
    include: ['core/test/**/*.test.ts'],
    // These try many strikes or films over and over; what they cover, others pin with one.
    exclude: ['accuracySlice', 'techniques', 'schools', 'sound', 'swing'].map(
      (name) => `core/test/${name}.test.ts`,
    ),
    isolate: false,
    testTimeout: 120_000,
  },
});
