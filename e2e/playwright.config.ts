import { defineConfig } from '@playwright/test';
import { CHROMIUM, LAUNCH_ARGS } from './browser';

const LONG = /(lesson|pages|hostile)\.spec/;

/** Started by bin/test.mjs, which serves a copy of the application for each worker (WENDEL_COPIES). */
export default defineConfig({
  testDir: '.',
  workers: JSON.parse(process.env.WENDEL_COPIES ?? '[1]').length,
  // A crowded machine may be several times as slow as a quiet one, and now and then stand still.
  timeout: 240_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json']],
  outputDir: '../test-results',
  // What takes longest begins first, so that no worker is left with it at the end.
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'short', testIgnore: LONG },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    launchOptions: { executablePath: CHROMIUM, args: LAUNCH_ARGS },
  },
});
