import { defineConfig } from '@playwright/test';
import { LAUNCH_ARGS, NOBODY, SIGNED_IN } from './browser';

/** Started by bin/test.mjs, which serves a copy of the application at WENDEL_PORT with its data in WENDEL_DATA. */
export default defineConfig({
  testDir: '.',
  workers: 1,
  // A crowded machine may be several times as slow as a quiet one, and now and then stand still; what needed a second try is named.
  timeout: 240_000,
  expect: { timeout: 60_000 },
  retries: 1,
  reporter: [['list'], ['json']],
  outputDir: '../test-results',
  use: {
    baseURL: `http://localhost:${process.env.WENDEL_PORT}`,
    viewport: { width: 1280, height: 800 },
    storageState: SIGNED_IN,
    actionTimeout: 60_000,
    launchOptions: { executablePath: '/usr/bin/chromium', args: LAUNCH_ARGS },
  },
  projects: [
    { name: 'door', testMatch: /door/, use: { storageState: NOBODY } },
    { name: 'rooms', testIgnore: /door|restart|faults/, dependencies: ['door'] },
    { name: 'faults', testMatch: /faults/, dependencies: ['rooms'] },
    { name: 'restart', testMatch: /restart/, dependencies: ['faults'] },
  ],
});
