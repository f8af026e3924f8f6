export default {
  testEnvironment: 'node',
  // One worker would be used on two cores.
  maxWorkers: '100%',
  // Databases finish their last turn after a test file has ended.
  // Tests run side by side on whatever machine there is; none measures time.
  testTimeout: 180_000,
  testEnvironmentOptions: { globalsCleanup: 'off' },
  roots: ['<rootDir>/src'],
  setupFiles: ['<rootDir>/src/testing/seed.ts'],
  moduleNameMapper: {
    '\\.css$': '<rootDir>/src/testing/styles.ts',
    // The library as one file: a thousand modules take each test file more than a second.
    '^antd$': '<rootDir>/node_modules/antd/dist/antd.min.js',
    '^@/(.*)$': '<rootDir>/src/$1',
  },
  // Packages that come as modules alone are made ready like our own.
  transformIgnorePatterns: ['/node_modules/(?!(react-hotkeys-hook)/)'],
  transform: { '^.+\\.(tsx?|js)$': '<rootDir>/scripts/jest-transform.cjs' },
};
