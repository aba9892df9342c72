import { inChromium } from './support/config';

// A server that must keep more of the disk free than any disk has refuses every clip.
export default inChromium(
  '.',
  { main: [], fullDisk: ['SINEW_KEEP_FREE_MB=1000000000'] },
  { testMatch: ['tests/**/*.spec.ts', 'hardening/**/*.spec.ts'], workers: 2 },
);
