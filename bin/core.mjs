#!/usr/bin/env node
// The commands that need no database: npm run -s analyze|judge|shelf|plan|song|examples -- [...]. Compiles itself on first use.
import { pathToFileURL } from 'node:url';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, root } from './lib/project.mjs';

command(async () => {
  checkNode();
  if (!existsSync(join(root, 'node_modules/esbuild'))) ensurePackages();
  const { ensureCommand } = await import('./lib/build.mjs');
  const [name] = process.argv.splice(2, 1);
  await import(pathToFileURL(await ensureCommand(name)).href);
});
