// A second copy of the application for tests: its own data and build, on its own port.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './project.mjs';

const START_S = 600;

/** Start a copy and wait until it is healthy. @throws Error when it ends or takes too long. */
export async function startCopy({ data, port }) {
  const env = { ...process.env, PORT: String(port), WENDEL_DATA: data, WENDEL_BUILD: '.next-test', DATABASE_URL: '' };
  const child = spawn(process.execPath, [join(root, 'bin/start.mjs')], { cwd: root, stdio: ['ignore', 2, 2], detached: true, env });
  let ended;
  child.once('exit', (code) => (ended = code ?? 1));
  child.unref();
  for (const until = Date.now() + START_S * 1000; Date.now() < until; await new Promise((r) => setTimeout(r, 200))) {
    if (ended !== undefined) throw new Error(`npm start ended with ${ended}: see the messages above.`);
    const healthy = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (healthy) return;
  }
  throw new Error(`npm start was not serving after ${START_S} s.`);
}

/** Stop a copy as Ctrl-C does, and wait until it is gone. */
export async function stopCopy({ data }) {
  const path = join(data, 'running.json');
  if (!existsSync(path)) return;
  const { pid } = JSON.parse(readFileSync(path, 'utf8'));
  process.kill(pid, 'SIGINT');
  while (existsSync(path)) await new Promise((r) => setTimeout(r, 100));
}
