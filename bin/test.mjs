#!/usr/bin/env node
// npm test: sets up all it needs, checks everything, ends with "N passed, N failed".
// npm test -- unit|db|e2e|checks runs one part; further words go to that part's runner.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, root, say } from './lib/project.mjs';

const [part, ...words] = process.argv.slice(2);
const wants = (name) => !part || part === name;
const total = { passed: 0, failed: 0 };

function count(name, passed, failed) {
  total.passed += passed;
  total.failed += failed;
  say(`${failed ? 'FAILED' : 'ok'}: ${name} (${passed} passed${failed ? `, ${failed} failed` : ''})`);
}

const bin = (name) => join(root, 'node_modules', name);
const run = (args, env = {}) =>
  spawnSync(process.execPath, args, { cwd: root, stdio: ['ignore', 2, 2], env: { ...process.env, ...env } }).status === 0;

/** A check that passes or fails as a whole. */
function check(name, args) {
  const ok = run(args);
  count(name, ok ? 1 : 0, ok ? 0 : 1);
}

function jest(project, env = {}) {
  const report = join(mkdtempSync(join(tmpdir(), 'wendel-jest-')), 'report.json');
  run([bin('jest/bin/jest.js'), '--selectProjects', project, '--json', `--outputFile=${report}`, ...words], env);
  tally(project, report, (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites]);
}

function playwright(env) {
  const report = join(mkdtempSync(join(tmpdir(), 'wendel-e2e-')), 'report.json');
  run([bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts', ...words], {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  });
  tally('end to end', report, (r) => {
    if (r.stats.flaky) say(`${r.stats.flaky} of the end to end tests passed only at the second try.`);
    return [r.stats.expected + r.stats.flaky, r.stats.unexpected + r.errors.length];
  });
}

function tally(name, report, numbers) {
  try {
    const [passed, failed] = numbers(JSON.parse(readFileSync(report, 'utf8')));
    // Nothing run is no success.
    count(name, passed, passed + failed === 0 ? 1 : failed);
  } catch {
    say(`The ${name} tests ended without a report.`);
    count(name, 0, 1);
  }
}

async function testDatabase(data) {
  const { ensureRoles, startPostgres } = await import('./lib/postgres.mjs');
  const { ensurePrograms } = await import('./lib/build.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const server = await startPostgres(data, { durable: false });
  try {
    await ensureRoles(server);
    const env = {
      WENDEL_ADMIN_URL: server.adminUrl,
      WENDEL_OWNER_URL: server.ownerUrl,
      WENDEL_APP_URL: server.appUrl,
      WENDEL_DOOR_URL: server.doorUrl,
      WENDEL_SECRET: server.settings.signInSecret,
    };
    runProgram((await ensurePrograms()).migrate, env);
    jest('db', env);
  } finally {
    server.stop();
  }
}

/** The whole application as npm start makes it, beside any that is running. */
async function testInBrowser() {
  const { withCopy } = await import('./lib/copy.mjs');
  try {
    await withCopy(({ data, port }) => playwright({ WENDEL_DATA: data, WENDEL_PORT: String(port) }));
  } catch (error) {
    say(error.message);
    count('npm start', 0, 1);
  }
}

command(async () => {
  checkNode();
  ensurePackages();
  const { ensureDebian } = await import('./lib/debian.mjs');
  const { ensureAnalyzer, ensureAssets } = await import('./lib/build.mjs');
  if (wants('checks')) {
    await ensureAssets();
    run([bin('next/dist/bin/next'), 'typegen']);
    check('types', [bin('typescript/bin/tsc'), '--noEmit']);
    check('lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']);
    check('format', [bin('prettier/bin/prettier.cjs'), '--check', '.', '--log-level', 'warn']);
    check('import directions', [bin('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', 'src']);
  }
  if (wants('unit')) {
    ensureDebian({ '/usr/bin/sox': 'sox', '/usr/bin/aubiopitch': 'aubio-tools', '/usr/bin/mftext': 'abcmidi' });
    await ensureAnalyzer();
    jest('unit');
  }
  if (wants('db')) await (await import('./lib/copy.mjs')).withFolder(testDatabase);
  if (wants('e2e')) {
    ensureDebian({ '/usr/bin/chromium': 'chromium' });
    await testInBrowser();
  }
  process.stdout.write(`${total.passed} passed, ${total.failed} failed\n`);
  process.exit(total.failed ? 1 : 0);
});
