// Where the project lies, and how its commands speak.
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

// Whoever read our messages may be gone; that is no reason to fall over and leave parts running.
process.stderr.on('error', () => {});

export const say = (text) => process.stderr.write(`${text}\n`);

export function checkNode() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20)
    throw new Error(`Wendel needs Node.js 20 or newer; this is ${process.versions.node}. Install a newer Node.js and start again.`);
}

/** Run `main`; say what went wrong in one line and exit 1. */
export function command(main) {
  main().catch((error) => {
    say(process.env.WENDEL_TRACE ? error.stack : `\n${error.message}`);
    process.exit(1);
  });
}

/** The start that serves a data folder now ({ pid, url }), or undefined. */
export function running(data) {
  try {
    const { pid, url } = JSON.parse(readFileSync(join(data, 'running.json'), 'utf8'));
    // A number may have been used again since: is that process one of ours?
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs') ? { pid, url } : undefined;
  } catch {
    return undefined;
  }
}

/** Stop the web server and worker that a killed start left running, as its record names them. */
export async function stopLeftParts(record) {
  let parts = [];
  try {
    parts = JSON.parse(readFileSync(record, 'utf8')).parts ?? [];
  } catch {
    // Interrupted before it had written: nothing was running yet.
  }
  for (const pid of parts) {
    try {
      // A number may have been used again since.
      if (/next-server|web\.mjs|main\.mjs/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))) {
        process.kill(-pid, 'SIGKILL');
        // Its port is free only when it's gone.
        while (existsSync(`/proc/${pid}`)) await new Promise((resolve) => setTimeout(resolve, 20));
      }
    } catch {
      // Already gone.
    }
  }
}
