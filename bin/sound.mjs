#!/usr/bin/env node
// npm run sound -- home: brings all sound that lies in the sound store back into the database. Stop Wendel first.
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, running } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  const { withDatabase } = await import('./lib/backup.mjs');
  const { dataFolder } = await import('./lib/postgres.mjs');
  const { ensureServerCommand } = await import('./lib/build.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const data = dataFolder();
  if (running(data)) throw new Error('Wendel is running on this data and would send it there again: stop it (Ctrl-C) first.');
  const program = await ensureServerCommand('sound');
  await withDatabase(data, (urls) => runProgram(program, urls, process.argv.slice(2)));
});
