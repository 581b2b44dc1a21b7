import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  distDir: process.env.MUDFLAT_DIST ?? '.next',
  serverExternalPackages: ['pg', 'pdfkit', 'fontkit'],
  devIndicators: false,
  // The proxy of the yard packs what it passes on; on the machine itself packing costs more than it saves.
  compress: false,
  // `./mudflat test` checks types once, for everything; a build would do it again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
