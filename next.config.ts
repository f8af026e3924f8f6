import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by themselves, by ./check; a build need not do so again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
