import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3'],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  experimental: { optimizePackageImports: ['radix-ui'] },
};

export default config;
