import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';
import { HEADER_RULES } from './src/securityHeaders';

const repository = fileURLToPath(new URL('..', import.meta.url));

const config: NextConfig = {
  transpilePackages: ['@sinew/core'],
  serverExternalPackages: ['better-sqlite3'],
  // `npm test` checks all types; who starts the app need not wait for that.
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: repository },
  outputFileTracingRoot: repository,
  poweredByHeader: false,
  // Nobody is far away: packing a page takes longer than sending it to the same room.
  compress: false,
  headers: async () => HEADER_RULES,
  devIndicators: false,
};

export default config;
