export default {
  testMatch: ['<rootDir>/*/test/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/', '/e2e/'],
  modulePathIgnorePatterns: ['<rootDir>/dist/'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } }, module: { type: 'es6' } }],
  },
  transformIgnorePatterns: ['/node_modules/'],
  testTimeout: 120_000,
  // Files are tested in workers of their own: modules of one file stay in memory as long as its process lives, and all of them in one are too many.
  maxWorkers: 2,
  workerIdleMemoryLimit: '1GB',
};
