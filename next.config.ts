import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  distDir: process.env.MUDFLAT_DIST ?? '.next',
  serverExternalPackages: ['pg', '@react-pdf/renderer'],
  devIndicators: false,
};

export default config;
