const swc = {
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true },
  },
  module: { type: 'es6' },
};

export default {
  roots: ['<rootDir>/packages', '<rootDir>/apps', '<rootDir>/demo', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts', '**/*.test.mjs'],
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/scripts/jest-seed.mjs'],
  testEnvironmentOptions: { customExportConditions: ['lambent-source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': ['<rootDir>/scripts/jest-transform.mjs', swc] },
  transformIgnorePatterns: ['/node_modules/(?!@lambent/)'],
  modulePathIgnorePatterns: ['/dist/', '/dist-types/', '/dist-program/'],
  // What is waited for is an event; a busy machine may take long to come to it.
  testTimeout: 240_000,
  // A test that fails may leave a process of its own behind; the run ends all the same.
  forceExit: true,
};
