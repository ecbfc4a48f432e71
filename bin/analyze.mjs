#!/usr/bin/env node
// The command line: npm run -s analyze -- FILE.wav [...]. Compiles itself on first use; needs no database.
import { pathToFileURL } from 'node:url';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, root } from './lib/project.mjs';

command(async () => {
  checkNode();
  if (!existsSync(join(root, 'node_modules/esbuild'))) ensurePackages();
  const { ensureAnalyzer } = await import('./lib/build.mjs');
  await import(pathToFileURL(await ensureAnalyzer()).href);
});
