import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['pg', '@react-pdf/renderer'],
  devIndicators: false,
};

export default config;
