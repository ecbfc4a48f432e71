/** Two projects: `unit` (no outside help) and `db` (against the PostgreSQL that bin/test.mjs starts). */
const MODULES_ONLY = [
  'pitchy',
  'fft\\.js',
  'client-zip',
  'p-limit',
  'yocto-queue',
  'aws4fetch',
  'better-auth',
  '@better-auth',
  'better-call',
  'jose',
  'kysely',
  '@noble',
  'rou3',
  'defu',
  'nanostores',
  '@better-fetch',
  'intl-messageformat',
  '@formatjs',
];
const shared = {
  cacheDirectory: '<rootDir>/node_modules/.cache/jest',
  testEnvironment: 'node',
  transform: {
    '/src/(core|cli)/.+\\.test\\.ts$': '<rootDir>/jest.transform.cjs',
    '^.+\\.ts$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } } }],
    '^.+\\.m?js$': ['@swc/jest', { jsc: { target: 'es2022' } }],
  },
  // Libraries that ship as modules only.
  transformIgnorePatterns: [`/node_modules/(?!(${MODULES_ONLY.join('|')})/)`],
  modulePathIgnorePatterns: ['<rootDir>/.next', '<rootDir>/dist'],
};

const config = {
  maxWorkers: 2,
  // For what hangs only: a crowded machine may be ten times as slow as a quiet one. (Projects have no say in this.)
  testTimeout: 240_000,
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/src/**/*.test.ts'], testPathIgnorePatterns: ['\\.db\\.test\\.ts$'] },
    { ...shared, displayName: 'db', testMatch: ['<rootDir>/src/**/*.db.test.ts'] },
  ],
};
export default config;
