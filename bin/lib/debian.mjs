// Debian packages that tests need, installed when they are missing and we may.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say } from './project.mjs';

/** Install packages whose binary is not there. @throws Error with the exact command when this user may not. */
export function ensureDebian(wanted) {
  const missing = Object.entries(wanted)
    .filter(([binary]) => !existsSync(binary))
    .map(([, name]) => name);
  if (missing.length === 0) return;
  const names = missing.join(' ');
  if (process.getuid?.() !== 0)
    throw new Error(
      `Missing programs. Install them with\n\n    sudo apt-get update && sudo apt-get install -y ${names}\n\nand start again.`,
    );
  if (!installDebian(missing, ['--no-install-recommends']))
    throw new Error(`Debian's packages ${names} could not be installed: see the messages above.`);
}

/** Install Debian packages (as root); whether it went well. */
export function installDebian(names, flags = []) {
  say(`Installing from Debian: ${names.join(' ')} ...`);
  const options = { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }, stdio: ['ignore', 2, 2] };
  spawnSync('apt-get', ['update', '-qq'], options);
  return spawnSync('apt-get', ['install', '-y', '-qq', ...flags, ...names], options).status === 0;
}
