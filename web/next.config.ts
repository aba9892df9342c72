import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';

const repository = fileURLToPath(new URL('..', import.meta.url));

const config: NextConfig = {
  transpilePackages: ['@sinew/core'],
  serverExternalPackages: ['better-sqlite3'],
  turbopack: { root: repository },
  outputFileTracingRoot: repository,
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
