#!/usr/bin/env node
// npm run account -- list | reset ADDRESS: for whoever runs the machine, when a coach is locked out and no mail goes out.
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, running } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  const { withDatabase } = await import('./lib/backup.mjs');
  const { dataFolder } = await import('./lib/postgres.mjs');
  const { ensureServerCommand } = await import('./lib/build.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const program = await ensureServerCommand('account');
  const data = dataFolder();
  const url = process.env.WENDEL_URL || running(data)?.url || 'http://localhost:3000';
  await withDatabase(data, (urls) => runProgram(program, { ...urls, WENDEL_URL: url }, process.argv.slice(2)));
});
