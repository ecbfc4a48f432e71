// Puts the npm packages in place when the lockfile asks for others than those installed.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root, say } from './project.mjs';

const marker = join(root, 'node_modules', '.wendel-installed');

export function ensurePackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(marker) && readFileSync(marker, 'utf8') === wanted) return;
  say('Installing npm packages (first start or changed lockfile) ...');
  const run = (args) => spawnSync('npm', [...args, '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: ['ignore', 2, 2] });
  let done = run(['ci']);
  if (done.status !== 0) done = run(['install', '--no-save']);
  if (done.status !== 0)
    throw new Error(
      'The npm packages could not be installed: see the messages above, check the connection to the package registry and the free disk space, and start again.',
    );
  writeFileSync(marker, wanted);
}
