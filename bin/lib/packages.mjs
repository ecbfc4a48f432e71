// Puts the npm packages in place when the lockfile asks for others than those installed.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { root, say } from './project.mjs';

const lockfile = join(root, 'package-lock.json');
const marker = join(root, 'node_modules', '.wendel-installed');
const self = fileURLToPath(import.meta.url);

const wanted = () => createHash('sha256').update(readFileSync(lockfile)).digest('hex');
const inPlace = () => existsSync(marker) && readFileSync(marker, 'utf8') === wanted();
const run = (command, args) => spawnSync(command, args, { cwd: root, stdio: ['ignore', 2, 2] }).status === 0;

export function ensurePackages() {
  if (inPlace()) return;
  say('Installing npm packages (first start or changed lockfile) ...');
  // A start and a test at once on a fresh machine: the second waits for the first, and finds them in place.
  if (!run('flock', [lockfile, process.execPath, self]))
    throw new Error(
      'The npm packages could not be installed: see the messages above, check the connection to the package registry and the free disk space, and start again.',
    );
}

function install() {
  const npm = (...args) => run('npm', [...args, '--no-audit', '--no-fund', '--loglevel=error']);
  const asks = wanted();
  if (!npm('ci') && !npm('install', '--no-save')) process.exit(1);
  writeFileSync(marker, asks);
}

if (process.argv[1] === self && !inPlace()) install();
