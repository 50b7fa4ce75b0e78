import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'sharp'],
  poweredByHeader: false,
  // It is served on its own machine only (scripts/serve.mjs): packing costs both sides and saves no time on the way.
  compress: false,
  reactStrictMode: true,
  devIndicators: false,
  experimental: {
    optimizePackageImports: ['radix-ui'],
    // A parts file of 20 MB, quoted as JSON.
    proxyClientMaxBodySize: '26mb',
  },
};

export default config;
