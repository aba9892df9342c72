/**
 * `npm start`: the app for real use; the gym is empty the first time. With `-- --gym` it opens to the
 * gym's own network as well.
 */
import { homedir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuild, ensurePackages, keyOf, serve } from './lib/setup.mjs';

function asked() {
  try {
    return parseArgs({
      options: {
        gym: { type: 'boolean', default: false },
        cert: { type: 'string' },
        'cert-key': { type: 'string' },
      },
    }).values;
  } catch (error) {
    console.error(`${error.message}\nnpm start -- [--gym] [--cert FILE --cert-key FILE]`);
    process.exit(2);
  }
}

const { gym, cert, 'cert-key': certKey } = asked();
if ((cert === undefined) !== (certKey === undefined)) {
  console.error('A certificate comes with its key: --cert FILE --cert-key FILE');
  process.exit(2);
}
const data = process.env.SINEW_DATA ?? join(homedir(), '.sinew');
ensurePackages();
ensureBuild();
await serve({
  data,
  key: keyOf(data),
  env: {
    ...(gym && { SINEW_GYM: '1' }),
    ...(cert && { SINEW_CERT: resolve(cert), SINEW_CERT_KEY: resolve(certKey) }),
  },
});
