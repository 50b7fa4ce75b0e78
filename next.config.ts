import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'sharp'],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  experimental: {
    optimizePackageImports: ['radix-ui'],
    // A parts file of 20 MB, quoted as JSON.
    proxyClientMaxBodySize: '26mb',
  },
};

export default config;
