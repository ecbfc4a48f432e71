#!/usr/bin/env node
// npm run bundle -- export FILE | import FILE [--dry-run]: the whole studio as one ZIP file that other programs read too.
// npm run -s bundle -- schema > docs/bundle.schema.json: what is in it.
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  const { withDatabase } = await import('./lib/backup.mjs');
  const { dataFolder } = await import('./lib/postgres.mjs');
  const { ensurePrograms, ensureServerCommand } = await import('./lib/build.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const program = await ensureServerCommand('bundle');
  if (process.argv[2] === 'schema') return void (await import(pathToFileURL(program).href));
  const { migrate } = await ensurePrograms();
  await withDatabase(dataFolder(), (urls) => {
    // A folder that was never served has no tables yet.
    runProgram(migrate, urls);
    runProgram(program, urls, process.argv.slice(2));
  });
});
