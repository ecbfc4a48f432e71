#!/usr/bin/env node
// npm run backup -- FILE: everything, recordings included, into one file; Wendel may be running. WENDEL_BACKUP_PASSWORD encrypts it.
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, say } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  const { backUp } = await import('./lib/backup.mjs');
  const { ensureServerCommand } = await import('./lib/build.mjs');
  const { dataFolder } = await import('./lib/postgres.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const file = process.argv[2] ?? `wendel-${new Date().toISOString().slice(0, 16).replace(/[:T]/g, '-')}.backup`;
  const program = await ensureServerCommand('sound');
  const saveSound = (urls, path) => runProgram(program, urls, ['save', path]);
  const { files, bytes } = await backUp(dataFolder(), file, saveSound, process.env.WENDEL_BACKUP_PASSWORD);
  say(`Backed up to ${files.join(' and ')} (${(bytes / 1e6).toFixed(1)} MB). npm run restore -- ${file} brings it back.`);
});
