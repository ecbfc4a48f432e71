/** Two projects: `unit` (no outside help) and `db` (against the PostgreSQL that bin/test.mjs starts). */
const shared = {
  testEnvironment: 'node',
  transform: {
    '^.+\\.ts$': ['<rootDir>/jest.transform.cjs', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } } }],
    '^.+\\.m?js$': ['@swc/jest', { jsc: { target: 'es2022' } }],
  },
  // Libraries that ship as modules only.
  transformIgnorePatterns: ['/node_modules/(?!(pitchy|fft\\.js|client-zip)/)'],
  modulePathIgnorePatterns: ['<rootDir>/.next', '<rootDir>/dist'],
};

const config = {
  maxWorkers: 2,
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/src/**/*.test.ts'], testPathIgnorePatterns: ['\\.db\\.test\\.ts$'] },
    { ...shared, displayName: 'db', testMatch: ['<rootDir>/src/**/*.db.test.ts'] },
  ],
};
export default config;
