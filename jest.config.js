// Jest on TypeScript sources through swc, as ES modules. Server tests talk to the MariaDB that the test script started.
export default {
  testMatch: ['<rootDir>/packages/*/src/**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, useDefineForClassFields: false },
          target: 'es2022',
        },
        module: { type: 'es6' },
      },
    ],
  },
  // Parallel suites would compete for the codec processes they start.
  maxWorkers: 2,
  testTimeout: 600_000,
};
