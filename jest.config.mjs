export default {
  testMatch: ['<rootDir>/*/test/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/', '/e2e/'],
  modulePathIgnorePatterns: ['<rootDir>/dist/'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } }, module: { type: 'es6' } }],
  },
  transformIgnorePatterns: ['/node_modules/'],
  testTimeout: 60_000,
};
