import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  distDir: process.env.MUDFLAT_DIST ?? '.next',
  // What is large and used by every route is loaded from its package: each route's part of the build held it
  // anew.
  serverExternalPackages: [
    ...[
      'pg',
      'pdfkit',
      'fontkit',
      'bwip-js',
      'ajv',
      'ajv-formats',
      'drizzle-orm',
      'jose',
      'rate-limiter-flexible',
      're2js',
    ],
    ...['better-auth', '@better-auth/core', '@better-auth/drizzle-adapter'],
  ],
  experimental: {
    // Maps of the server's sources were three quarters of what was written, and nothing reads them.
    turbopackSourceMaps: false,
    // A build is made whole: scripts/share-chunks.ts changes what was written, and a cache would not know.
    turbopackFileSystemCacheForBuild: false,
  },
  devIndicators: false,
  // The proxy of the yard packs what it passes on; on the machine itself packing costs more than it saves.
  compress: false,
  // `./mudflat test` checks types once, for everything; a build would do it again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
