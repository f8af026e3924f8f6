import base from '../jest.config.mjs';

export default {
  ...base,
  rootDir: '..',
  roots: ['<rootDir>/e2e'],
  testMatch: ['**/*.e2e.ts'],
  testTimeout: 60_000,
  globalSetup: '<rootDir>/e2e/support/serve.ts',
  globalTeardown: '<rootDir>/e2e/support/stop.ts',
};
