// Where the project lies, and how its commands speak.
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

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
