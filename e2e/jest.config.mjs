import base from '../jest.config.mjs';

export default {
  ...base,
  rootDir: '..',
  roots: ['<rootDir>/e2e'],
  testMatch: ['**/*.e2e.ts'],
  testTimeout: 120_000,
  setupFilesAfterEnv: ['<rootDir>/e2e/support/retry.ts'],
  globalSetup: '<rootDir>/e2e/support/serve.ts',
  globalTeardown: '<rootDir>/e2e/support/stop.ts',
};
