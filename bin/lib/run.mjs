// Starts and stops the long-running parts: web server and analysis worker.
import { spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import { setPriority } from 'node:os';
import { basename, join } from 'node:path';
import { root } from './project.mjs';
import { nextBin } from './build.mjs';

/** Run one of our compiled programs to its end with the given environment and words. */
export function runProgram(file, env, words = []) {
  const done = spawnSync(process.execPath, [file, ...words], { cwd: root, stdio: ['ignore', 2, 2], env: { ...process.env, ...env } });
  if (done.status !== 0) throw new Error(`${basename(file, '.mjs')} did not finish: see the message above.`);
}

/**
 * Start a part in its own process group, so that stopping it stops its children and nothing else; `nice`: the processors give way from it to
 * others, 0 (to none) to 19.
 */
export function startPart(args, env, nice = 0) {
  const child = spawn(process.execPath, args, {
    cwd: root,
    stdio: ['ignore', 2, 2],
    detached: true,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  if (nice) setPriority(child.pid, nice);
  child.done = new Promise((resolve) => child.once('exit', resolve));
  return child;
}

/** Nobody waits for the analysis with a finger on a key: on the same processors it gives way to the pages, and to a browser on this machine. */
const ANALYSIS_NICE = 10;
export const startWorker = (program, env) => startPart([program], env, ANALYSIS_NICE);

export async function stopPart(child) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const signal = (name) => {
    try {
      process.kill(-child.pid, name);
    } catch {
      // Already gone.
    }
  };
  signal('SIGTERM');
  const timer = setTimeout(() => signal('SIGKILL'), 4000);
  await child.done;
  clearTimeout(timer);
}

/**
 * How long an idle connection is kept, ms: longer than proxies keep theirs (60 s is usual), so that none sends a request on a
 * connection that is just being closed, which it would see as a reset.
 */
const KEEP_ALIVE_MS = 75_000;

/** The web server: one process, or (`processes`) several on one port. */
export const startWeb = (port, env, { dev = false, processes = 1 } = {}) =>
  startPart(
    [
      ...(processes > 1 && !dev ? [join(root, 'bin/web.mjs'), String(processes)] : [nextBin]),
      ...(dev ? ['dev'] : ['start', '--keepAliveTimeout', String(KEEP_ALIVE_MS)]),
      ...['-p', String(port), '-H', process.env.WENDEL_LISTEN || '127.0.0.1'],
    ],
    { NODE_ENV: dev ? 'development' : 'production', ...env },
  );

export function portTaken(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(true));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(false)));
  });
}

/** Wait until an address answers 200, or a part has died, or time is up. */
export async function waitForAnswer(url, parts, seconds = 60) {
  const until = Date.now() + seconds * 1000;
  let last = 'no answer';
  while (Date.now() < until) {
    if (parts.some((p) => p.exitCode !== null)) throw new Error('A part of Wendel stopped while starting: see the messages above.');
    try {
      const answer = await fetch(url);
      if (answer.ok) return;
      last = await answer.text();
    } catch {
      // Not listening yet.
    }
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error(`Wendel did not become ready within ${seconds} s (${last}).`);
}
