import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by themselves, by ./check; a build need not do so again.
  typescript: { ignoreBuildErrors: true },
  // One page serves every sheet: sheets live in the browser, which reads the address (decision 55).
  rewrites: () =>
    Promise.resolve([
      { source: '/sheet/:id', destination: '/screens/sheet' },
      { source: '/sheet/:id/:screen(parts|board|bench|report)', destination: '/screens/:screen' },
    ]),
};

export default config;
