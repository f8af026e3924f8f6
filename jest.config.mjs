export default {
  testEnvironment: 'node',
  // Databases finish their last turn after a test file has ended.
  // Tests run side by side on whatever machine there is; none measures time.
  testTimeout: 30_000,
  testEnvironmentOptions: { globalsCleanup: 'off' },
  roots: ['<rootDir>/src'],
  setupFiles: ['<rootDir>/src/testing/seed.ts'],
  moduleNameMapper: {
    '\\.css$': '<rootDir>/src/testing/styles.ts',
    '^@/(.*)$': '<rootDir>/src/$1',
  },
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
};
