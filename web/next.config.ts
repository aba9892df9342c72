import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';
import { HEADER_RULES } from './src/securityHeaders';

const repository = fileURLToPath(new URL('..', import.meta.url));

const config: NextConfig = {
  transpilePackages: ['@sinew/core'],
  serverExternalPackages: ['better-sqlite3'],
  turbopack: { root: repository },
  outputFileTracingRoot: repository,
  poweredByHeader: false,
  headers: async () => HEADER_RULES,
  devIndicators: false,
};

export default config;
