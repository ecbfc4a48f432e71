#!/usr/bin/env node
// npm test: sets up all it needs, checks everything, ends with "N passed, N failed".
// npm test -- unit|db|e2e|checks runs one part; further words go to that part's runner.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, root, say } from './lib/project.mjs';

const [part, ...words] = process.argv.slice(2);
const wants = (name) => !part || part === name;
const total = { passed: 0, failed: 0, skipped: 0 };
/** Copies of the application the browser tests run on, side by side. */
const COPIES = 2;
/** Computing gives way to singing, which goes on in real time. */
const NICE = 10;

const started = Date.now();
function count(name, passed, failed, skipped = 0) {
  total.passed += passed;
  total.failed += failed;
  total.skipped += skipped;
  const also = [failed && `${failed} failed`, skipped && `${skipped} skipped`].filter(Boolean).map((text) => `, ${text}`);
  say(`${failed ? 'FAILED' : 'ok'}: ${name} (${passed} passed${also.join('')}) after ${Math.round((Date.now() - started) / 1000)} s`);
}

const bin = (name) => join(root, 'node_modules', name);

/** What has not ended by then hangs, on the slowest machine: it is stopped, so that the rest is still told. */
const LONGEST_MIN = 60;
/** What a program that has ended may still have on its way to us; something it left running would keep the pipe open for ever. */
const LAST_WORDS_MS = 2000;

/** Run a program of Node's to its end. Where two lanes go on at once, what it says comes in one piece. */
async function run(args, env = {}, nice = 0) {
  const child = spawn(process.execPath, args, {
    cwd: root,
    stdio: part ? ['ignore', 2, 2] : ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
    timeout: LONGEST_MIN * 60_000,
    killSignal: 'SIGKILL',
  });
  if (nice) setPriority(child.pid, nice);
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (bytes) => said.push(bytes));
  const closed = new Promise((done) => child.once('close', done));
  const [code, signal] = await new Promise((done) => child.once('exit', (...ended) => done(ended)));
  await Promise.race([closed, pause(LAST_WORDS_MS, undefined, { ref: false })]);
  process.stderr.write(Buffer.concat(said));
  if (signal) say(`${args[0]} was stopped by ${signal}${signal === 'SIGKILL' ? `, as what runs over ${LONGEST_MIN} minutes is` : ''}.`);
  return code === 0;
}

/** A check that passes or fails as a whole. */
async function check(name, args) {
  const ok = await run(args, {}, NICE);
  count(name, ok ? 1 : 0, ok ? 0 : 1);
}

/** Tests have a folder of their own for what they write (TMPDIR), which is gone afterwards: two lanes don't meet in it, and nothing is left. */
async function jest(project, env = {}, nice = 0) {
  const { withFolder } = await import('./lib/copy.mjs');
  await withFolder(async (folder) => {
    const report = join(folder, 'report.json');
    const alone = part ? [] : ['--maxWorkers=1'];
    // What a library leaves open when all tests are done keeps no run alive.
    const args = ['--selectProjects', project, '--forceExit', '--json', `--outputFile=${report}`, ...alone, ...words];
    await run([bin('jest/bin/jest.js'), ...args], { ...env, TMPDIR: folder }, nice);
    tally(project, report, (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites, r.numPendingTests]);
  });
}

async function playwright(copies) {
  const { withFolder } = await import('./lib/copy.mjs');
  await withFolder(async (folder) => {
    const report = join(folder, 'report.json');
    await run([bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts', ...words], {
      WENDEL_COPIES: JSON.stringify(copies),
      PLAYWRIGHT_JSON_OUTPUT_NAME: report,
      PWTEST_CACHE_DIR: bin('.cache/playwright'),
      TMPDIR: folder,
    });
    tally('end to end', report, ({ stats, errors }) => [stats.expected, stats.unexpected + stats.flaky + errors.length, stats.skipped]);
  });
}

function tally(name, report, numbers) {
  try {
    const [passed, failed, skipped] = numbers(JSON.parse(readFileSync(report, 'utf8')));
    // Nothing run is no success.
    count(name, passed, passed + failed === 0 ? 1 : failed, skipped);
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
    await jest('db', env);
  } finally {
    server.stop();
  }
}

/** The whole application as npm start makes it, beside any that is running. */
async function testInBrowser() {
  const { withCopies } = await import('./lib/copy.mjs');
  try {
    // A few specs need one only.
    await withCopies(words.length ? Math.min(COPIES, words.length) : COPIES, playwright);
  } catch (error) {
    say(error.message);
    count('npm start', 0, 1);
  }
}

/** What needs the processor and nothing else. */
async function computing() {
  if (wants('checks')) {
    await run([bin('next/dist/bin/next'), 'typegen'], {}, NICE);
    await check('types', [bin('typescript/bin/tsc'), '--noEmit']);
    await check('lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']);
    await check('format', [bin('prettier/bin/prettier.cjs'), '--check', '.', '--log-level', 'warn']);
    await check('import directions', [bin('dependency-cruiser/bin/dependency-cruise.mjs'), '--config', '.dependency-cruiser.cjs', 'src']);
  }
  if (wants('unit')) await jest('unit', {}, NICE);
}

/** What needs servers, and sings. */
async function serving() {
  if (wants('db')) await (await import('./lib/copy.mjs')).withFolder(testDatabase);
  if (wants('e2e')) await testInBrowser();
}

command(async () => {
  checkNode();
  ensurePackages();
  const { ensureDebian } = await import('./lib/debian.mjs');
  const { ensureCommand, ensureAssets } = await import('./lib/build.mjs');
  if (wants('unit'))
    ensureDebian({
      '/usr/bin/sox': 'sox',
      '/usr/bin/aubiopitch': 'aubio-tools',
      '/usr/bin/mftext': 'abcmidi',
      '/usr/bin/festival': 'festival',
      '/usr/bin/praat': 'praat',
      '/usr/bin/fluidsynth': 'fluidsynth',
      '/usr/share/sounds/sf2/TimGM6mb.sf2': 'timgm6mb-soundfont',
      '/usr/share/festival/voices/english/kal_diphone': 'festvox-kallpc16k',
      '/usr/share/festival/voices/italian/lp_diphone': 'festvox-italp16k',
    });
  if (wants('db') || wants('e2e'))
    ensureDebian(Object.fromEntries(['proxy', 'account', 'container', 'object'].map((s) => [`/usr/bin/swift-${s}-server`, `swift-${s}`])));
  if (wants('e2e')) ensureDebian({ '/usr/bin/chromium': 'chromium' });
  if (wants('db') || wants('e2e')) (await import('./lib/postgres.mjs')).serverBinaries();
  if (wants('checks') || wants('unit')) await ensureAssets();
  if (wants('unit')) await Promise.all(['analyze', 'judge', 'plan', 'shelf', 'song'].map(ensureCommand));
  await Promise.all([computing(), serving()]);
  if (total.skipped) say(`${total.skipped} skipped.`);
  process.stdout.write(`${total.passed} passed, ${total.failed} failed\n`);
  process.exit(total.failed ? 1 : 0);
});
