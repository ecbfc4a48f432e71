// A second copy of the application for tests: its own data and build, on its own port.
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, openSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { root, running } from './project.mjs';

const START_S = 600;
const STOP_S = 120;

/** Start a copy and wait until it is healthy. @throws Error with what it said when it ends or takes too long. */
export async function startCopy({ data, port }) {
  const env = {
    ...process.env,
    PORT: String(port),
    WENDEL_DATA: data,
    WENDEL_BUILD: '.next-test',
    DATABASE_URL: '',
    WENDEL_SIGN_UP: 'open',
  };
  const path = join(data, 'start.log');
  const log = openSync(path, 'a');
  const child = spawn(process.execPath, [join(root, 'bin/start.mjs')], { cwd: root, stdio: ['ignore', log, log], detached: true, env });
  let ended;
  child.once('exit', (code) => (ended = code ?? 1));
  child.unref();
  const said = () => readFileSync(path, 'utf8').slice(-3000);
  for (const until = Date.now() + START_S * 1000; Date.now() < until; await pause(200)) {
    if (ended !== undefined) throw new Error(`npm start ended with ${ended}:\n${said()}`);
    const healthy = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (healthy) return;
  }
  throw new Error(`npm start was not serving after ${START_S} s:\n${said()}`);
}

/** Stop a copy as Ctrl-C does, and wait until it is gone. @throws Error when it does not go in order. */
export async function stopCopy({ data }) {
  const pid = running(data)?.pid;
  if (!pid) return;
  process.kill(pid, 'SIGINT');
  for (const until = Date.now() + STOP_S * 1000; existsSync(join(data, 'running.json')); await pause(100))
    if (!running(data) || Date.now() > until) throw new Error(`npm start (process ${pid}) did not stop in order.`);
}

/** Run with a data folder of its own that is gone afterwards; the database's user must be able to enter it. */
export async function withFolder(work) {
  const data = mkdtempSync(join(tmpdir(), 'wendel-test-'));
  chmodSync(data, 0o755);
  try {
    await work(data);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}

/** Run with so many copies of the application, side by side, that are gone afterwards. @throws Error as `startCopy` and `stopCopy` do. */
export async function withCopies(count, work, copies = []) {
  if (copies.length === count) {
    try {
      // The first builds what all of them serve, and makes the demo: the others begin with a copy of its data.
      const [first, ...others] = copies;
      await startCopy(first);
      if (others.length > 0) {
        await stopCopy(first);
        for (const { data } of others) copyData(first.data, data);
        await Promise.all(copies.map(startCopy));
      }
      await work(copies);
    } finally {
      await Promise.all(copies.map(stopCopy));
    }
    return;
  }
  await withFolder(async (data) => withCopies(count, work, [...copies, { data, port: await freePort() }]));
}

/** The database's files stay its own user's. */
function copyData(from, to) {
  const { status, stderr } = spawnSync('cp', ['-a', `${from}/.`, to], { encoding: 'utf8' });
  if (status !== 0) throw new Error(`The data of a copy could not be copied: ${stderr}`);
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
